import type { ComponentType } from 'react';
import type { ProgramKind } from '@plain-trowel/core/control/programs/programs';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { FollowerFields } from './FollowerFields.tsx';
import { PulseSoakFields } from './PulseSoakFields.tsx';
import { SingleDoseFields } from './SingleDoseFields.tsx';
import { TimerFields } from './TimerFields.tsx';
import { UntilWetFields } from './UntilWetFields.tsx';
import type { FieldsOf } from './programForm.ts';
import { VetoFields } from './VetoFields.tsx';

/** The form of each kind; a new kind fails to compile here until it has one. */
const FORMS: { readonly [Kind in ProgramKind]: ComponentType<FieldsOf<Kind>> | null } = {
  'alert-only': null,
  timer: TimerFields,
  'pulse-soak': PulseSoakFields,
  'until-wet': UntilWetFields,
  'single-dose': SingleDoseFields,
  veto: VetoFields,
  follower: FollowerFields,
};

/** The numbers of a line's program. Start and stop limits are the plot's, on the first view. */
export function ProgramFields({ line }: { line: WaterLine }) {
  const Form = FORMS[line.program.kind] as ComponentType<FieldsOf<ProgramKind>> | null;
  return Form && <Form line={line} program={line.program} />;
}

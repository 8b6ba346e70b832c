import { isUnknown } from '@plain-trowel/core/control/plotState';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { stateWord } from '@plain-trowel/core/telling/plotWords';
import type { SignalState } from '@plain-trowel/core/control/signals';

/** A state as a row of the list is named. */
export function stateName(state: SignalState): string {
  switch (state) {
    case 'locked':
      return 'line locked';
    case 'watering':
      return 'watering now';
    case 'probe-fault':
      return 'probe fault';
    case 'tank-low':
      return 'tank low';
    case 'too-cold':
      return 'too cold';
    case 'too-hot':
      return 'too hot';
    case 'too-dry':
      return 'too dry';
    case 'too-wet':
      return 'too wet';
    case 'unknown':
      return 'unknown';
    case 'night':
      return 'night';
    case 'content':
      return 'content';
  }
}

/** What a lamp says of one plot, in that plot's own words. */
export function plotStateName(state: SignalState, view: Pick<PlotView, 'state' | 'words'>): string {
  switch (state) {
    case 'too-dry':
    case 'too-wet':
      return isUnknown(view.state) ? stateName(state) : stateWord(view.state, view.words);
    case 'content':
      return isUnknown(view.state) ? stateName(state) : stateWord(view.state, view.words);
    case 'unknown':
      return isUnknown(view.state) ? stateWord(view.state) : 'unknown: nobody knows how full the tank is';
    default:
      return stateName(state);
  }
}

/** When a state holds. */
export function stateWhen(state: SignalState): string {
  switch (state) {
    case 'locked':
      return 'doses did not raise the reading';
    case 'watering':
      return 'a line of the plot runs';
    case 'probe-fault':
      return 'silent, or at the rail';
    case 'tank-low':
      return 'below its minimum';
    case 'too-cold':
      return 'soil or air below its low limit';
    case 'too-hot':
      return 'soil or air above its high limit';
    case 'too-dry':
      return 'where the plot’s word is low, dry or too dry';
    case 'too-wet':
      return 'where the plot’s word is flooded or too wet';
    case 'unknown':
      return 'no reading, no calibration that holds, or nobody knows how full the tank is';
    case 'night':
      return 'darker than the night of the plot’s board';
    case 'content':
      return 'all is known, and nothing above holds, shown or not';
  }
}

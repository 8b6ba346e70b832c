import type { Plot } from '@plain-trowel/core/garden/document/schema';
import { setSoilFacts } from '@plain-trowel/core/garden/edits/calibrations';
import { setPlot } from '@plain-trowel/core/garden/edits/plots';
import { PLANT_GROUPS, plantGroup } from '@plain-trowel/core/plants/plantGroups';
import { WEATHER, WEATHER_IDS, type WeatherId } from '@plain-trowel/core/plants/weather';
import { SOIL_KINDS } from '@plain-trowel/core/soils/soilKinds';
import { useGarden } from '../data/gardenContext.ts';
import { Select } from '../ui/Select.tsx';

const optionsOf = (list: readonly { id: string; name: string }[]) =>
  list.map((one) => ({ value: one.id, label: one.name })).sort((a, b) => a.label.localeCompare(b.label));
const NOT_SAID = { name: '', options: [{ value: '', label: 'Not said' }] };

const PLANTS = [
  NOT_SAID,
  { name: 'In pots (rules of thumb)', options: optionsOf(PLANT_GROUPS.filter((one) => one.where === 'pot')) },
  {
    name: 'In the ground (FAO-56)',
    options: optionsOf(PLANT_GROUPS.filter((one) => one.where === 'ground')),
  },
];
const SOILS = [
  NOT_SAID,
  { name: 'Mixes for pots', options: optionsOf(SOIL_KINDS.filter((one) => one.group === 'mix')) },
  { name: 'Texture of the ground', options: optionsOf(SOIL_KINDS.filter((one) => one.group === 'texture')) },
];
const WEATHERS = [{ name: '', options: WEATHER_IDS.map((id) => ({ value: id, label: WEATHER[id].name })) }];

type Props<Value extends string> = {
  readonly value: Value;
  readonly onChange: (value: Value) => void;
  readonly hint?: string | undefined;
};

const PlantSelect = (props: Props<string>) => <Select label="Plant" groups={PLANTS} {...props} />;
const SoilSelect = (props: Props<string>) => <Select label="Soil" groups={SOILS} {...props} />;
const WeatherSelect = (props: Props<WeatherId>) => (
  <Select label="Weather, for the whole garden" groups={WEATHERS} {...props} />
);

/** What else to know of a plant when watering it. */
function plantHint(id: string): string | undefined {
  const plant = plantGroup(id);
  if (!plant) return undefined;
  const words = [plant.note, plant.water === 'rain' ? 'Rain water only.' : ''].filter((one) => one !== '');
  return words.length > 0 ? words.join(' ') : undefined;
}

/** What grows in a plot, in what, and under which sky; each is kept at once. */
export function PlantFields({ plot, soilHint }: { plot: Plot; soilHint?: string | undefined }) {
  const { garden, commit } = useGarden();
  return (
    <div className="mt-3 grid gap-x-5 gap-y-3 sm:grid-cols-3">
      <PlantSelect
        value={plot.plantGroupId}
        hint={plantHint(plot.plantGroupId)}
        onChange={(plantGroupId) =>
          void commit(`plant group of ${plot.name}`, (before) => ({
            garden: setPlot(before, plot.id, { plantGroupId }),
          }))
        }
      />
      <SoilSelect
        value={plot.soil.kindId}
        hint={soilHint}
        onChange={(kindId) =>
          void commit(`soil of ${plot.name}`, (before) => ({
            garden: setSoilFacts(before, plot.id, { kindId }),
          }))
        }
      />
      <WeatherSelect
        value={garden.weather}
        onChange={(weather) => void commit('weather', (before) => ({ garden: { ...before, weather } }))}
      />
    </div>
  );
}

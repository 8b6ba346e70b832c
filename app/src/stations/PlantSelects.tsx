import { PLANT_GROUPS } from '@plain-trowel/core/plants/plantGroups';
import { WEATHER, WEATHER_IDS, type WeatherId } from '@plain-trowel/core/plants/weather';
import { SOIL_KINDS } from '@plain-trowel/core/soils/soilKinds';
import { Select } from '../ui/Select.tsx';

const optionsOf = (list: readonly { id: string; name: string }[]) =>
  list.map((one) => ({ value: one.id, label: one.name }));
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

export const PlantSelect = (props: Props<string>) => <Select label="Plant" groups={PLANTS} {...props} />;
export const SoilSelect = (props: Props<string>) => <Select label="Soil" groups={SOILS} {...props} />;
export const WeatherSelect = (props: Props<WeatherId>) => (
  <Select label="Weather, for the whole garden" groups={WEATHERS} {...props} />
);

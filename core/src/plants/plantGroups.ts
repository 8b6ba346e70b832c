/**
 * Plant groups: how much of the available water may go before growth suffers, how deep they root, how much they drink against a short-cropped lawn.
 *
 * Groups of the open ground are from Allen et al. 1998, FAO Irrigation and Drainage Paper 56: depletion fraction p for a demand of about 5 mm a day and
 * greatest root depth from table 22, crop coefficient in mid-season from table 12. Groups of pots have no table of that standing; theirs are rules of thumb
 * of container growing, and each says so.
 */
import { byId } from '../quantity/byId.ts';
export type PlantGroup = {
  readonly id: string;
  readonly name: string;
  readonly where: 'ground' | 'pot';
  /** Share of the available water that may be used before growth suffers, 0..1, at 5 mm a day. */
  readonly depletionFrac: number;
  /** Least and greatest root depth, m; in a pot the pot decides. */
  readonly rootM: readonly [number, number];
  /** Water use against reference evapotranspiration, in full leaf. */
  readonly cropFactor: number;
  readonly basis: string;
  /** What else to know when watering it; empty: nothing. */
  readonly note: string;
  /** `rain`: lime harms it, so rain or distilled water only. */
  readonly water: 'any' | 'rain';
  /** It wants to stand in water: no soil is too wet for it. */
  readonly wetFeet: boolean;
};

/** A plant that nobody has named may use so little before it is watered. */
export const CAUTIOUS_FRAC = 0.3;

const PLAIN = { note: '', water: 'any', wetFeet: false } as const;

const FAO = 'FAO-56, tables 12 and 22';
const ground = (
  id: string,
  name: string,
  depletionFrac: number,
  rootM: readonly [number, number],
  cropFactor: number,
): PlantGroup => ({
  id,
  name,
  where: 'ground',
  depletionFrac,
  rootM,
  cropFactor,
  basis: FAO,
  ...PLAIN,
});
const pot = (
  id: string,
  name: string,
  depletionFrac: number,
  cropFactor: number,
  why: string,
  more: Partial<Pick<PlantGroup, 'note' | 'water' | 'wetFeet'>> = {},
): PlantGroup => ({
  id,
  name,
  where: 'pot',
  ...PLAIN,
  depletionFrac,
  rootM: [0.1, 0.4],
  cropFactor,
  basis: `Rule of thumb for containers, no published table: ${why}`,
  ...more,
});

export const PLANT_GROUPS: readonly PlantGroup[] = [
  ground('lettuce', 'Lettuce', 0.3, [0.3, 0.5], 1),
  ground('spinach', 'Spinach and chard', 0.2, [0.3, 0.5], 1),
  ground('cabbage', 'Cabbages, kale', 0.45, [0.5, 0.8], 1.05),
  ground('broccoli', 'Broccoli, cauliflower', 0.45, [0.4, 0.7], 1.05),
  ground('carrot', 'Carrots', 0.35, [0.5, 1], 1.05),
  ground('celery', 'Celery', 0.2, [0.3, 0.5], 1.05),
  ground('onion', 'Onions, leeks, garlic', 0.3, [0.3, 0.6], 1.05),
  ground('radish', 'Radishes', 0.3, [0.3, 0.5], 0.9),
  ground('beetroot', 'Beetroot', 0.5, [0.6, 1], 1.05),
  ground('parsnip', 'Parsnips, turnips', 0.4, [0.5, 1], 1.05),
  ground('potato', 'Potatoes', 0.35, [0.4, 0.6], 1.15),
  ground('tomato', 'Tomatoes', 0.4, [0.7, 1.5], 1.15),
  ground('pepper', 'Peppers and chillies', 0.3, [0.5, 1], 1.05),
  ground('aubergine', 'Aubergines', 0.45, [0.7, 1.2], 1.05),
  ground('cucumber', 'Cucumbers', 0.5, [0.7, 1.2], 1),
  ground('courgette', 'Courgettes', 0.5, [0.6, 1], 0.95),
  ground('squash', 'Pumpkins, winter squash', 0.35, [1, 1.5], 1),
  ground('melon', 'Melons', 0.4, [0.8, 1.5], 1.05),
  ground('bean', 'Green beans', 0.45, [0.5, 0.7], 1.05),
  ground('pea', 'Peas', 0.35, [0.6, 1], 1.15),
  ground('maize', 'Sweet corn', 0.5, [0.8, 1.2], 1.15),
  ground('strawberry', 'Strawberries', 0.2, [0.2, 0.3], 0.85),
  ground('mint', 'Mint', 0.4, [0.4, 0.8], 1.15),
  ground('asparagus', 'Asparagus', 0.45, [1.2, 1.8], 0.95),
  ground('berry', 'Berry bushes', 0.5, [0.6, 1.2], 1.05),
  ground('vine', 'Table grapes', 0.35, [1, 2], 0.85),
  ground('apple', 'Apples, pears, cherries', 0.5, [1, 2], 0.95),
  ground('stone-fruit', 'Peaches, apricots, plums', 0.5, [1, 2], 0.9),
  ground('citrus', 'Citrus in the ground', 0.5, [1.2, 1.5], 0.65),
  ground('olive', 'Olives', 0.65, [1.2, 1.7], 0.7),
  ground('lawn-cool', 'Lawn of cool-season grass', 0.4, [0.5, 1], 0.95),
  ground('lawn-warm', 'Lawn of warm-season grass', 0.5, [0.5, 1], 0.85),
  pot(
    'pot-fruiting',
    'Fruiting vegetables in pots',
    0.3,
    1.15,
    'large leaves over little soil, so half of the ground’s buffer',
  ),
  pot('pot-leafy', 'Leafy herbs and salads in pots', 0.25, 1, 'they wilt early and recover late'),
  pot(
    'pot-woody-herb',
    'Rosemary, thyme, lavender in pots',
    0.6,
    0.6,
    'woody and used to dry ground; wet roots harm them more',
  ),
  pot('pot-citrus', 'Citrus in pots', 0.4, 0.7, 'even moisture, never wet for long'),
  pot(
    'pot-strawberry',
    'Strawberries in gutters and pots',
    0.2,
    0.9,
    'as in the ground, for they root as shallow there',
  ),
  pot('pot-flowers', 'Balcony flowers', 0.35, 1, 'in full flower they stop as soon as they lack water'),
  pot(
    'pot-foliage',
    'Foliage plants indoors',
    0.5,
    0.6,
    'drying half way between waterings is what most stand best',
  ),
  pot('pot-fern', 'Ferns and others that love moisture', 0.2, 0.8, 'never dry; fronds do not come back'),
  pot(
    'pot-succulent',
    'Succulents and cacti',
    0.8,
    0.3,
    'nearly dry between waterings; wet for long they rot',
  ),
  pot(
    'pot-seedling',
    'Seedlings and cuttings',
    0.15,
    0.8,
    'roots of a few centimetres have no second chance',
  ),
  pot(
    'bog',
    'Bog plants: sundew, pitcher plant, flytrap',
    0.1,
    1.1,
    'they grow where the ground is never dry',
    {
      note: 'Stands in a tray of water, in peat and sand without fertiliser; a little less in winter.',
      water: 'rain',
      wetFeet: true,
    },
  ),
  pot('umbrella-sedge', 'Papyrus, umbrella sedge', 0.1, 1.2, 'a swamp plant in a pot', {
    note: 'Wants to stand in water.',
    wetFeet: true,
  }),
  pot('basil', 'Basil', 0.25, 1, 'soft leaves over a small pot', {
    note: 'Hangs its leaves within an hour of running dry, and comes back within another.',
  }),
  pot('parsley', 'Parsley, chives, coriander', 0.3, 1, 'leafy herbs want even moisture'),
  pot('pot-mint', 'Mint in a pot', 0.25, 1.1, 'drinks more than any other herb'),
  pot('pot-tomato', 'Tomatoes in pots', 0.3, 1.15, 'uneven water splits the fruit and rots its end'),
  pot('pot-chilli', 'Chillies in pots', 0.4, 1, 'they stand a dry spell, and fruit the hotter for it'),
  pot('african-violet', 'African violet', 0.4, 0.6, 'even moisture, and never on the leaves', {
    note: 'Water from below, at room temperature: cold drops mark the leaves.',
  }),
  pot('cyclamen', 'Cyclamen', 0.35, 0.7, 'the corm rots when water stands on it', {
    note: 'Water into the tray, and pour off what is left after half an hour.',
  }),
  pot('pelargonium', 'Pelargoniums', 0.55, 0.8, 'thick stems store water; wet roots rot'),
  pot('hibiscus', 'Hibiscus', 0.3, 1, 'drops its buds when it runs dry'),
  pot('begonia', 'Begonias', 0.4, 0.7, 'evenly moist, and airy above'),
  pot('peace-lily', 'Peace lily', 0.4, 0.7, 'hangs its leaves before it is harmed'),
  pot('spider-plant', 'Spider plant', 0.55, 0.6, 'thick roots store water'),
  pot('monstera', 'Monstera, philodendron, ivy arum', 0.5, 0.6, 'the upper third may dry out'),
  pot('weeping-fig', 'Weeping fig, fiddle-leaf fig', 0.45, 0.7, 'drops leaves when the water swings'),
  pot('rubber-plant', 'Rubber plant', 0.55, 0.5, 'half dry between waterings'),
  pot('dragon-tree', 'Dragon tree, yucca', 0.6, 0.4, 'a stem that stores water; wet for long it rots'),
  pot('snake-plant', 'Snake plant, aspidistra', 0.75, 0.3, 'nearly dry between waterings'),
  pot('zamioculcas', 'Zamioculcas', 0.75, 0.3, 'its tubers store water for weeks'),
  pot('calathea', 'Prayer plants', 0.3, 0.8, 'leaf tips brown as soon as it is dry', {
    note: 'Brown tips come from lime as well as from dry air.',
    water: 'rain',
  }),
  pot('moth-orchid', 'Moth orchids in bark', 0.6, 0.4, 'bark holds little, and roots need air', {
    note: 'A probe reads next to nothing in coarse bark: weigh the pot, or dip it once a week and let it drip out.',
    water: 'rain',
  }),
  pot('azalea', 'Azaleas, camellias, blueberries', 0.25, 0.8, 'fine roots in acid soil dry at once', {
    note: 'Lime in the water turns its leaves yellow.',
    water: 'rain',
  }),
  pot('christmas-cactus', 'Christmas cactus', 0.55, 0.4, 'a forest cactus, not one of the desert'),
  pot('jade-plant', 'Jade plant, aloe', 0.8, 0.3, 'leaves that store water'),
  pot('coffee', 'Coffee plant', 0.35, 0.8, 'even moisture', { water: 'rain' }),
  pot('avocado', 'Avocado from a stone', 0.4, 0.8, 'wilts when dry, yellows when wet'),
  pot('pot-myrtle', 'Myrtle, bay, strawberry tree', 0.5, 0.7, 'woody plants of dry summers'),
];

export const plantGroup = (id: string): PlantGroup | null => byId(PLANT_GROUPS, id) ?? null;

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
};

/** A plant that nobody has named may use so little before it is watered. */
export const CAUTIOUS_FRAC = 0.3;

const FAO = 'FAO-56, tables 12 and 22';
const ground = (
  id: string,
  name: string,
  depletionFrac: number,
  rootM: readonly [number, number],
  cropFactor: number,
): PlantGroup => ({ id, name, where: 'ground', depletionFrac, rootM, cropFactor, basis: FAO });
const pot = (
  id: string,
  name: string,
  depletionFrac: number,
  cropFactor: number,
  why: string,
): PlantGroup => ({
  id,
  name,
  where: 'pot',
  depletionFrac,
  rootM: [0.1, 0.4],
  cropFactor,
  basis: `Rule of thumb for containers, no published table: ${why}`,
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
];

export const plantGroup = (id: string): PlantGroup | null => byId(PLANT_GROUPS, id) ?? null;

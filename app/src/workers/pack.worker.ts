/** Packs on a core of its own what another worker writes. */
import { expose, transfer } from 'comlink';
import { packingHere, type Packing } from '../data/packing.ts';

const here = packingHere();
const packing: Packing = {
  begin: here.begin,
  write: async (bytes) => {
    const packed = await here.write(bytes);
    return transfer(packed, [packed.buffer]);
  },
  end: here.end,
};

expose(packing);

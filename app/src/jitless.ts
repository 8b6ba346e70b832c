// Imported before any schema: the page's policy forbids code made from strings, which schemas would otherwise try to use for speed.
import { z } from 'zod';

z.config({ jitless: true });

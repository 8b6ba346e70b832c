/**
 * The schema library, set up once: import `z` from here and never from the package itself. The app's page forbids code made from strings,
 * which the library would otherwise use for speed, and it decides that the moment a schema is made.
 */
import { z } from 'zod';

z.config({ jitless: true });

export { z };

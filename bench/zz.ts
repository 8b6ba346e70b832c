import { benchRandomGardens } from './wiring/randomGardens.ts';
benchRandomGardens(Number(process.argv[2]));

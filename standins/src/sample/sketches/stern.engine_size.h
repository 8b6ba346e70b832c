// How many of each this board has, and what it needs beside.
#define TROWEL_SENSORS 1
#define TROWEL_TANKS 1
#define TROWEL_LINES 1
#define TROWEL_SLOTS 1
#define TROWEL_ORDERS 2
#define TROWEL_CONTACTS 1
// mV that its converter compares with, and the highest number it gives.
#define TROWEL_REFERENCE_MV 5000
#define TROWEL_FULL_SCALE 1023
// What of the engine it needs: the board looks each second, and has these kinds of programs, a bit each.
#define TROWEL_EACH_SECOND
#define TROWEL_PROGRAMS 0
#define TROWEL_NO_LINES
#define TROWEL_POWERS 1
// Volumes of 32 bits.
#define TROWEL_SMALL

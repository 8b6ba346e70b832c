// How many of each this board has, and what it needs beside.
#define TROWEL_SENSORS 1
#define TROWEL_TANKS 1
#define TROWEL_LINES 1
#define TROWEL_SLOTS 1
#define TROWEL_ORDERS 2
#define TROWEL_CONTACTS 0
// mV that its converter compares with, and the highest number it gives.
#define TROWEL_REFERENCE_MV 3300
#define TROWEL_FULL_SCALE 4095
// What of the engine it needs: the board looks each second, and has these kinds of programs, a bit each.
#define TROWEL_EACH_SECOND
#define TROWEL_PROGRAMS 4
#define TROWEL_WATCHES 1
#define TROWEL_SENSES
#define TROWEL_ONE_WIRE
#define TROWEL_VOLTS
#define TROWEL_BUS
#define TROWEL_NET
// Bits of its converter.
#define TROWEL_ADC_BITS 12

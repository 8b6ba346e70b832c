// How many of each this board has.
#define TROWEL_SENSORS 1
#define TROWEL_TANKS 1
#define TROWEL_LINES 1
#define TROWEL_SLOTS 1
#define TROWEL_ORDERS 2
// What of the engine it needs: the board looks each second, and has these kinds of programs, a bit each.
#define TROWEL_EACH_SECOND
#define TROWEL_PROGRAMS 4
// Bits of its converter.
#define TROWEL_ADC_BITS 12

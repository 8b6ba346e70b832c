// How many of each this board has.
#define TROWEL_SENSORS 1
#define TROWEL_TANKS 1
#define TROWEL_LINES 1
#define TROWEL_SLOTS 1
#define TROWEL_ORDERS 2
// Bits of its converter.
#define TROWEL_ADC_BITS 12

#define defined 1

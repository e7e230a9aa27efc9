#define A B B
#define B C C C C
#define C D D D D D D D D
#define D E E E E E E E E
#define E F F F F F F F F F F
#define F G G G G G G G G G G
#define G 1+1+1+1+1+1+1+1
float x() { return A A A A A A; }
#define F(a, b) a
float x = F(1);
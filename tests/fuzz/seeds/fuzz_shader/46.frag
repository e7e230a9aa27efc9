#define F(a, a) a

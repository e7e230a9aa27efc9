#if 1u2
#endif

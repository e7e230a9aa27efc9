#if (1
#endif

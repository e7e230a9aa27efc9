// Which object each pixel shows: 0 is sky, 1 the beach, 2 to 4 the stones.
return shore_at.w;

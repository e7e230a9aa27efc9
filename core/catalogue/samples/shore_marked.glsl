// The two stones in front, as objects of a scene are marked.
return shore_at.w > 1.5 && shore_at.w < 3.5 ? 1.0 : 0.0;

// Vectors come with metal_stdlib.

#extension x

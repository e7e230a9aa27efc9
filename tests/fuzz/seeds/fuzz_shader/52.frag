#extension x : maybe

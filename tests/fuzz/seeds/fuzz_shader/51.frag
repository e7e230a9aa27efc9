#extension x : require

// Metres from the camera, along the view.
return 4 - shore_at.z;

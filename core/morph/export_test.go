package morph

func Tell(o *Outlines) float64 { return o.turn * 57.3 }

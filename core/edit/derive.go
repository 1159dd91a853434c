package edit

import "capstan/core/series"

// derive is series.Derive.
func derive(seed, id string) string { return series.Derive(seed, id) }

// CopyID is the id that what a copied scene holds gets, by that of what it was.
func CopyID(seed, id string) string { return derive(seed, id) }

// CopyThread is the thread that a copy of a layer gets by layer.duplicate with a seed.
func CopyThread(seed, id string) string { return derive(seed+"/thread", id) }

package delivery

import (
	"capstan/core/frame"
	"capstan/core/words"
)

// MaxEach is how many files one press makes at most.
const MaxEach = 200

// Each returns what is asked for file by file: a still of each scene where stills of all are, else what is asked for itself.
func Each(f *frame.Film, a Ask) ([]Ask, error) {
	if !a.Scenes || !Formats[a.Format].Still {
		a.Scenes = false
		return []Ask{a}, nil
	}
	n := len(f.Doc.Film.Shown())
	if n > MaxEach {
		return nil, words.New("export.scenes", n, MaxEach)
	}
	list := make([]Ask, n)
	for i := range list {
		list[i] = a
		list[i].Scene, list[i].Scenes = i+1, false
	}
	return list, nil
}

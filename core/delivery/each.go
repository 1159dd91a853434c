package delivery

import (
	"capstan/core/frame"
	"capstan/core/words"
)

// MaxEach is how many files one press makes at most.
const MaxEach = 200

// Each returns what is asked for file by file: a still of each scene where stills of all are, or of each cue, else what is asked for itself.
func Each(f *frame.Film, a Ask) ([]Ask, error) {
	scenes, cues := a.Scenes, a.Cues
	a.Scenes, a.Cues = false, false
	if format := Formats[a.Format]; !scenes && !cues || !format.Still || format.Sheet {
		return []Ask{a}, nil
	}
	var list []Ask
	for i, s := range f.Doc.Film.Shown() {
		a.Scene, a.Cue = i+1, 0
		if scenes {
			list = append(list, a)
			continue
		}
		for k := range s.Cues {
			a.Cue = k + 1
			list = append(list, a)
		}
	}
	switch {
	case len(list) > MaxEach:
		return nil, words.New("export.scenes", len(list), MaxEach)
	case len(list) == 0:
		return nil, words.New("export.cueless")
	}
	return list, nil
}

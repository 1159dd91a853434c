package delivery

import (
	"capstan/core/frame"
	"capstan/core/words"
)

// MaxEach is how many files one press makes at most.
const MaxEach = 200

// Each returns what is asked for file by file: of each row that is asked for, and of that a still of each scene where stills of all are, or of each cue.
func Each(f *frame.Film, a Ask) ([]Ask, error) {
	rows := a.Rows
	a.Rows = nil
	of1, err := scenesOf(f, a)
	if err != nil || len(rows) == 0 {
		return of1, err
	}
	var list []Ask
	for _, row := range rows {
		for _, v := range of1 {
			v.Row = row
			list = append(list, v)
		}
	}
	if len(list) > MaxEach {
		return nil, words.New("export.scenes", len(list), MaxEach)
	}
	return list, nil
}

func scenesOf(f *frame.Film, a Ask) ([]Ask, error) {
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

package delivery

import (
	"cmp"
	"fmt"
	"maps"
	"slices"

	"capstan/core/anim"
	"capstan/core/doc"
	"capstan/core/frame"
)

// Kind is a format as it is offered.
type Kind struct {
	Format string `json:"format"`
	Words  string `json:"words"`
	Says   string `json:"says"`  // what it is for
	Still  bool   `json:"still"` // one frame
	Rests  bool   `json:"rests"` // it goes round, and may rest before it begins again
	Clear  bool   `json:"clear"` // it can be clear where the page is

	Sheet   bool        `json:"sheet"`   // all scenes on one, with their names and lengths
	Piece   bool        `json:"piece"`   // browsers move what is in it: it has no frames of its own
	Use     string      `json:"use"`     // what it is made for
	Plays   string      `json:"plays"`   // how a file of it is shown: video, picture; empty: browsers do not show it
	Video   bool        `json:"video"`   // its frames follow each other at one rate
	Poster  bool        `json:"poster"`  // it has a picture that stands for it
	Numbers []int       `json:"numbers"` // what qualities are to its encoder; empty: it has none
	Palette bool        `json:"palette"` // colours, dither and loss can be asked for
	Texts   bool        `json:"texts"`   // it carries a title and a description
	Track   bool        `json:"track"`   // it has a track of sound, where the film has sound
	Heard   bool        `json:"heard"`   // it has nothing else
	Caption bool        `json:"caption"` // it has captions, or can have a track of them, where something is spoken
	Gives   []Sacrifice `json:"gives"`   // what can be given up for a size, in the order it is where none is asked for
}

// Kinds returns the formats in the order in which they are offered.
func Kinds() []Kind {
	names := slices.Clone(order)
	for _, name := range slices.Sorted(maps.Keys(Formats)) {
		if !slices.Contains(order, name) {
			names = append(names, name)
		}
	}
	list := []Kind{}
	for _, name := range names {
		f := Formats[name]
		list = append(list, Kind{name, cmp.Or(f.Words, name), f.Says, f.Still, f.Rests, f.Clear, f.Sheet, f.Piece, f.Use, f.Plays, f.Video, f.Poster, append([]int{}, f.Numbers...), f.Palette, f.Texts, f.Track != "", f.Heard, f.Captions, f.gives()})
	}
	return list
}

// Offered are the sizes and rates that are offered for files of a format, each of which there can be, with the first choice.
type Offered struct {
	Heights []int      `json:"heights"` // px, the largest first
	First   int        `json:"first"`   // of them: the page's own, but a GIF is smaller
	Rates   []doc.Rate `json:"rates"`   // frames a second, that which is made where none is asked for first
	Ranges  []Range    `json:"ranges"`  // the whole film, and its scenes
	Cues    []CueAt    `json:"cues"`    // that stills can show
}

// Range is a part of a film.
type Range struct {
	Words string `json:"words"`
	From  int64  `json:"from"` // ms
	To    int64  `json:"to"`
}

// CueAt is a cue of a scene, both counted from 1.
type CueAt struct {
	Words string `json:"words"`
	Scene int    `json:"scene"`
	Cue   int    `json:"cue"`
}

// Choices are what files are asked for by name, in the order in which they are offered.
type Choices struct {
	Uses      []Use         `json:"uses"`
	Qualities []Quality     `json:"qualities"`
	Dithers   []anim.Dither `json:"dithers"`
	Colours   int           `json:"colours"` // of a GIF, at most
	Loss      float64       `json:"loss"`    // of a GIF that is left to Capstan
	Samples   int           `json:"samples"` // moments of a frame with motion blur
	Corners   []string      `json:"corners"` // where a mark may lie
	Presets   []Preset      `json:"presets"`
}

// Chosen returns the choices.
func Chosen() Choices {
	return Choices{Uses, Qualities, anim.Dithers, anim.MostColours, Unseen, Samples, Corners, Presets()}
}

// gifHeight is the height up to which what goes round by itself is offered at first, px: beyond it files become heavy (common practice).
const gifHeight = 480

// smallPage is the height up to which a page is made for what is small: such films keep their size.
const smallPage = 540

// Offer returns what is offered for files of a film in a format.
func Offer(f *frame.Film, format string) Offered {
	film := &f.Doc.Film
	fits := func(h int) bool {
		_, err := Of(f, Ask{Format: format, Height: h, Rate: film.Rate})
		return err == nil
	}
	first := film.Rate
	if Formats[format].Rests {
		first = usual(film.Rate)
	}
	v := Offered{First: film.Height, Rates: []doc.Rate{first}, Ranges: ranges(f), Cues: []CueAt{}}
	for i, s := range film.Shown() {
		for k, c := range s.Cues {
			v.Cues = append(v.Cues, CueAt{c.Name, i + 1, k + 1})
		}
	}
	for _, h := range []int{film.Height, 1080, 720, 480, 360, 240} {
		if h <= film.Height && !slices.Contains(v.Heights, h) && fits(h) {
			v.Heights = append(v.Heights, h)
		}
	}
	if i := slices.IndexFunc(v.Heights, func(h int) bool {
		return !Formats[format].Rests || Formats[format].Piece || h <= gifHeight || film.Height <= smallPage
	}); i >= 0 {
		v.First = v.Heights[i]
	}
	rates := []int64{24, 25, 30, 60}
	if Formats[format].Rests {
		rates = []int64{10, 15, 20, 25}
	}
	for _, n := range rates {
		if r := (doc.Rate{Num: n, Den: 1}); fmt.Sprint(r) != fmt.Sprint(first) {
			v.Rates = append(v.Rates, r)
		}
	}
	return v
}

// ranges are the parts of a film that are offered: all of it, and each scene with the transition into it.
func ranges(f *frame.Film) []Range {
	list := []Range{{"the whole film", 0, f.Order.Length}}
	shown := f.Doc.Film.Shown()
	if len(shown) < 2 {
		return list
	}
	for i, s := range shown {
		list = append(list, Range{s.Name, f.Order.Starts[i], f.Order.Starts[i] + f.Order.Into[i] + f.Order.Stays[i]})
	}
	return list
}

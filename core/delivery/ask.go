package delivery

import (
	"cmp"
	"math"
	"slices"

	"capstan/core/anim"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/words"
)

// Ask is what somebody wants. What is left out is left to Capstan.
type Ask struct {
	Format      string      `json:"format"`
	Width       int         `json:"width,omitempty"`  // px; what is 0 follows from the other and the page, the page's own size where both are
	Height      int         `json:"height,omitempty"` // px
	Rate        doc.Rate    `json:"rate,omitzero"`    // frames a second; the film's where it is zero
	Frame       int64       `json:"frame,omitempty"`  // ms a frame, in place of a rate
	From        int64       `json:"from,omitempty"`   // ms of the film; a still is the frame there
	Scene       int         `json:"scene,omitempty"`  // of a still: the number of a scene, from 1, as it rests, in place of From
	Scenes      bool        `json:"scenes,omitempty"` // stills of all scenes, each as it rests; see Each
	Cue         int         `json:"cue,omitempty"`    // of a still: the number of a cue of Scene, from 1: the frame there
	Cues        bool        `json:"cues,omitempty"`   // stills of all cues; see Each
	Row         int         `json:"row,omitempty"`    // of a variant: the row of the project's table, from 1, which the film has been filled from
	Rows        []int       `json:"rows,omitempty"`   // a file, or files, of each of these; see Each
	To          int64       `json:"to,omitempty"`     // ms of the film; 0: its end
	Passes      int64       `json:"passes,omitempty"` // how often what goes round plays; 0: for ever
	Pause       *int64      `json:"pause,omitempty"`  // ms the last frame rests, of what goes round; else as the film asks
	Times       []Hold      `json:"times,omitempty"`  // frames that are timed by hand
	Quality     string      `json:"quality,omitempty"`
	Poster      *int64      `json:"poster,omitempty"` // ms of the film: the picture that stands for it; else the end of its first scene
	Colours     int         `json:"colours,omitempty"`
	Dither      anim.Dither `json:"dither,omitempty"`
	Loss        *float64    `json:"loss,omitempty"`
	Target      int64       `json:"target,omitempty"`   // bytes that a file that goes round may have; 0: any
	Shutter     float64     `json:"shutter,omitempty"`  // degrees of a frame, 360 being all of it, that light falls in; 0: no motion blur
	Samples     int         `json:"samples,omitempty"`  // moments that a frame with motion blur is made of; 0: Samples
	Give        []Sacrifice `json:"give,omitempty"`     // what is given up for the target, in this order; else Sacrifices
	Waits       bool        `json:"waits,omitempty"`    // a web page that stands still until it is started
	Mark        *Mark       `json:"mark,omitempty"`     // what lies over it
	Silent      bool        `json:"silent,omitempty"`   // of a film with sound: nothing is heard
	Pictures    string      `json:"pictures,omitempty"` // of a video: the id of a file that was made, whose encoded pictures it has
	Captions    bool        `json:"captions,omitempty"` // a track of what voices say, which players show or hide
	Title       string      `json:"title,omitempty"`
	Description string      `json:"description,omitempty"`
	Name        string      `json:"name,omitempty"` // pattern of the file's name; else Plan.Pattern
}

// Qualities of what is not exact, best first.
var Qualities = []Quality{{"fine", "Fine"}, {"good", "Good"}, {"light", "Light"}}

// Quality is how true a file is.
type Quality struct {
	Name  string `json:"name"`
	Words string `json:"words"`
}

// Plan is a file in numbers.
type Plan struct {
	Format             string
	Width, Height      int // px, even where the format asks for it
	RateNum, RateDen   int64
	From, To           int64 // ms of the film; To 0: its end
	Scene              int   // of a still: the number of a scene, from 1, that is shown as it rests; 0: the frame at From
	SceneName          string
	RowName            string // of a variant
	Passes             int64  // how often it plays; 0: for ever
	Times              []Hold
	EndPause           int64 // ms its last frame rests
	Quality            int   // as the format's encoder counts it
	Poster             int64 // ms of the film
	Colours            int   // of a GIF, at most
	Dither             anim.Dither
	Loss               float64
	Target             int64 // bytes
	Give               []Sacrifice
	Shutter            float64 // degrees of a frame; 0: no motion blur
	Samples            int     // moments that a frame with motion blur is made of
	Waits              bool    // until it is started
	Mark               *Mark   // nil: none
	Silent, Captions   bool
	Pictures           string // the file whose encoded pictures it has; empty: its own are made
	Title, Description string
}

// Samples is how many moments a frame with motion blur is made of where nothing else is asked for.
const Samples = 8

// Limits of what is asked for beside size, rate and range.
const (
	MaxPasses  = 65535
	MaxPause   = 3600_000 // ms
	MaxLoss    = 100
	MinTarget  = 1 << 10 // bytes
	MaxTarget  = 1 << 30
	MaxSamples = 64
	MaxTitle   = 200  // characters
	MaxText    = 2000 // characters
)

// Unseen is the loss of a GIF that is left to Capstan: a step in OKLab that is not seen (0.004; half of what two colours side by side need).
const Unseen = 4

// Of returns the plan of what is asked for, or a *words.Fault for what is too much, or does not exist.
func Of(f *frame.Film, a Ask) (Plan, error) {
	film := &f.Doc.Film
	format, known := Formats[a.Format]
	switch {
	case !known:
		return Plan{}, words.New("export.format", a.Format)
	case format.Heard && format.Captions && !f.Doc.Film.Speaking():
		return Plan{}, words.New("export.wordless")
	case format.Heard && !f.Doc.Film.Sounding():
		return Plan{}, words.New("export.silent")
	case a.Frame != 0 && (a.Frame < 1 || a.Frame > 600_000):
		return Plan{}, words.New("export.frame-ms")
	case a.Frame != 0:
		a.Rate = doc.Rate{Num: 1000, Den: a.Frame}
	case a.Rate == (doc.Rate{}) && format.Rests && !format.Piece:
		a.Rate = usual(film.Rate)
	case a.Rate == (doc.Rate{}):
		a.Rate = film.Rate
	}
	p := Plan{Format: a.Format, RateNum: a.Rate.Num, RateDen: a.Rate.Den, From: a.From, To: a.To, Passes: a.Passes, Target: a.Target, Give: a.Give,
		Colours: cmp.Or(a.Colours, anim.MostColours), Dither: a.Dither, Loss: Unseen, Shutter: a.Shutter, Samples: cmp.Or(a.Samples, Samples), Waits: a.Waits && a.Format == HTML, Mark: a.Mark, Silent: a.Silent, Captions: a.Captions, Title: a.Title, Description: a.Description}
	if a.Row != 0 {
		p.RowName = f.Doc.Table.RowName(a.Row)
	}
	if format.Sheet {
		a.Scene, a.Cue, p.From = 0, 0, 0
	}
	if a.Scene != 0 && format.Still {
		if err := p.shows(f, a.Scene, a.Cue); err != nil {
			return p, err
		}
	}
	if format.Rate != nil && a.Rate.Valid() {
		p.RateNum, p.RateDen = format.Rate(a.Rate.Num, a.Rate.Den)
	}
	if a.Loss != nil {
		p.Loss = *a.Loss
	}
	switch {
	case format.Sheet:
		if err := p.sized(f, a.Width); err != nil {
			return p, err
		}
	case a.Width == 0 && a.Height == 0:
		p.Width, p.Height = Size(film, film.Height)
	case max(a.Width, a.Height) > MaxSide || max(a.Width, a.Height) < MinSide || min(a.Width, a.Height) < 0:
		return p, words.New("export.height", MaxSide)
	case a.Width != 0:
		p.Width, p.Height = SizeAcross(film, a.Width)
	default:
		p.Width, p.Height = Size(film, a.Height)
	}
	if err := a.check(&p, f); err != nil {
		return p, err
	}
	if err := p.Check(f); err != nil {
		return p, err
	}
	if format.Piece {
		p.Target, p.Give, p.Shutter = 0, nil, 0
	}
	if len(a.Times) > 0 && !format.Still && !format.Piece {
		var err error
		if p.Times, err = held(a.Times, p.Frames(f), max(1, format.Least)); err != nil {
			return p, err
		}
		if err := p.Check(f); err != nil {
			return p, err
		}
	}
	p.EndPause = EndPause(f, a.Format, a.Passes == 1)
	if a.Pause != nil && format.Rests {
		p.EndPause = *a.Pause
	}
	return p, nil
}

// shows makes a still one of a scene, from 1, as it rests; or of the film as it comes to a cue of it, from 1.
func (p *Plan) shows(f *frame.Film, scene, cue int) error {
	shown := f.Doc.Film.Shown()
	if scene < 1 || scene > len(shown) {
		return words.New("export.scene", scene, len(shown))
	}
	i := scene - 1
	s, begins := shown[i], f.Order.Starts[i]+f.Order.Into[i]
	if cue == 0 {
		p.Scene, p.SceneName, p.From = scene, s.Name, min(begins+f.Order.Stays[i], f.Order.Length)
		return nil
	}
	if cue < 1 || cue > len(s.Cues) {
		return words.New("export.cue", cue, s.Name, len(s.Cues))
	}
	at := s.Cues[cue-1].At
	p.SceneName, p.From = s.Name+"-"+s.Cues[cue-1].Name, begins+at
	for k := range s.Cues {
		if c := &s.Cues[k]; c.At < at || c.At == at && k < cue-1 {
			p.From += c.Wait
		}
	}
	p.From = min(p.From, f.Order.Length)
	return nil
}

// sized gives a sheet its size: pages to print have one, a picture is as wide as asked for.
func (p *Plan) sized(f *frame.Film, width int) error {
	p.Width, p.Height = int(SheetWidth), int(SheetHeight)
	if p.Format == SheetPDF {
		return nil
	}
	if width == 0 {
		width = 2 * int(SheetWidth)
	}
	if width < MinSheet || width > MaxSide {
		return words.New("export.height", MaxSide)
	}
	p.Width, p.Height = width, int(longSheet(f)*float64(width)/SheetWidth+0.5)
	return nil
}

// MinSheet is how wide a sheet is at least, px: its words can be read.
const MinSheet = 640

// check holds the rest of what is asked for to its limits.
func (a *Ask) check(p *Plan, f *frame.Film) error {
	i := slices.IndexFunc(Qualities, func(q Quality) bool { return q.Name == cmp.Or(a.Quality, Qualities[0].Name) })
	switch {
	case i < 0:
		return words.New("export.quality", a.Quality)
	case a.Passes < 0 || a.Passes > MaxPasses:
		return words.New("export.passes", MaxPasses)
	case a.Pause != nil && (*a.Pause < 0 || *a.Pause > MaxPause):
		return words.New("export.pause", MaxPause/1000)
	case a.Colours < 0 || a.Colours == 1 || a.Colours > anim.MostColours:
		return words.New("export.colours", anim.MostColours)
	case a.Dither != "" && !slices.Contains(anim.Dithers, a.Dither):
		return words.New("export.dither", string(a.Dither))
	case !(p.Loss >= 0 && p.Loss <= MaxLoss):
		return words.New("export.loss", MaxLoss)
	case a.Target != 0 && (a.Target < MinTarget || a.Target > MaxTarget):
		return words.New("export.target", MinTarget/1024, MaxTarget>>20)
	case !(a.Shutter >= 0 && a.Shutter <= 360) || a.Samples < 0 || a.Samples == 1 || a.Samples > MaxSamples:
		return words.New("export.shutter", MaxSamples)
	case len([]rune(a.Title)) > MaxTitle || len([]rune(a.Description)) > MaxText:
		return words.New("export.texts", MaxTitle, MaxText)
	case len(a.Give) > len(Sacrifices) || slices.ContainsFunc(a.Give, func(s Sacrifice) bool { return !slices.Contains(Sacrifices, s) }):
		return words.New("export.give")
	}
	if a.Mark != nil {
		if err := a.Mark.check(f); err != nil {
			return err
		}
	}
	if n := Formats[p.Format].Numbers; n != nil {
		p.Quality = n[i]
	}
	p.Poster = f.Order.Starts[0] + f.Order.Into[0] + f.Order.Stays[0]
	if a.Poster != nil {
		p.Poster = *a.Poster
	}
	if p.Poster = min(p.Poster, f.Order.Length); p.Poster < 0 {
		return words.New("export.still", f.Order.Length)
	}
	return nil
}

// usual is the rate of what goes round where none is asked for: the film's, but 25 a second at most, since 30 alternates hundredths.
func usual(r doc.Rate) doc.Rate {
	if r.Num > 25*r.Den {
		return doc.Rate{Num: 25, Den: 1}
	}
	return r
}

// even returns the even number nearest to v, 2 or more: what video wants.
func even(v float64) int { return max(2, int(math.Floor(v/2+0.5))*2) }

// Package heard is what a window shows and plays of a film's sounds: their rows below those of the layers, and stretches of their mix, from recordings of which
// it holds the parts that were asked for last.
package heard

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/sound"
	"capstan/core/words"
)

// Row is one sound in the timeline. Times are ms of the film.
type Row struct {
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Use      string            `json:"use"`
	Scene    int               `json:"scene"` // on whose clock it is; -1: the film's
	Media    string            `json:"media"`
	Begin    int64             `json:"begin"`
	End      int64             `json:"end"` // within the film
	Length   int64             `json:"length"`
	From     int64             `json:"from"`    // ms into the recording
	Lasts    int64             `json:"lasts"`   // ms of the whole recording
	Samples  int64             `json:"samples"` // of it
	Channels int               `json:"channels"`
	Speed    float64           `json:"speed"`
	Keeps    bool              `json:"keepsPitch"`
	Loops    bool              `json:"loops"`
	Round    int64             `json:"round"`   // frames of the recording before it begins again
	Gain     float64           `json:"gain"`    // dB
	Percent  float64           `json:"percent"` // the same
	Points   []doc.VolumePoint `json:"points"`
	FadeIn   int64             `json:"fadeIn"`
	FadeOut  int64             `json:"fadeOut"`
	Curve    string            `json:"curve"`
	Pan      float64           `json:"pan"`
	Along    bool              `json:"along"`
	Muted    bool              `json:"muted"`
	Move     string            `json:"move"`  // that its start hangs on; empty: none
	Ends     bool              `json:"ends"`  // its end hangs on something
	Words    string            `json:"words"` // when it is heard
	Beats    []int64           `json:"beats"` // ms of the film
	Pace     int               `json:"pace"`  // beats a minute; 0: not known
	Marks    []Mark            `json:"marks"`
	Spoken   *doc.Spoken       `json:"spoken,omitzero"` // what its recording was made of
	Course   []sound.Corner    `json:"course"`          // how loud it is: ms of the film, and dB
}

// Mark is a moment of a sound that moves can begin at.
type Mark struct {
	ID   string `json:"id"`
	At   int64  `json:"at"` // ms of the film
	Name string `json:"name"`
}

// Sounds are those of the film.
type Sounds struct {
	Rows      []Row          `json:"rows"`
	Mix       doc.Mix        `json:"mix"`
	Captions  []Caption      `json:"captions"`
	Captioned *doc.Captioned `json:"captioned,omitzero"` // how captions are drawn in the film; nil: they are not
}

// Caption is one line in the timeline.
type Caption struct {
	From  int64   `json:"from"` // ms of the film
	To    int64   `json:"to"`
	Text  string  `json:"text"`
	Sound string  `json:"sound"` // the voice that says it; empty: it is a scene's own
	Scene string  `json:"scene"` // whose own it is
	Index int     `json:"index"` // among those
	Pace  float64 `json:"pace"`  // characters a second
	Fast  bool    `json:"fast"`  // more than most can read
}

// Ear hears the film of a window.
type Ear struct {
	*scope.Scope
	Tapes sound.Tapes

	film  *frame.Film
	mixer *sound.Mixer
}

// heard is the mixer of the film as it is shown.
func (e *Ear) heard() *sound.Mixer {
	if e.film != e.Shown || e.mixer == nil {
		e.film, e.mixer = e.Shown, &sound.Mixer{Score: sound.Of(e.Shown), Source: &e.Tapes}
	}
	return e.mixer
}

// SoundsView returns the sounds of the film as they are shown.
func (e *Ear) SoundsView() Sounds {
	film, s := &e.Shown.Doc.Film, e.heard().Score
	v := Sounds{Rows: []Row{}, Mix: film.Mixed()}
	v.Captions, v.Captioned = []Caption{}, film.Captions
	for _, l := range e.Shown.CaptionLines() {
		c := Caption{From: l.From, To: l.To, Text: l.Text, Sound: l.Sound, Index: l.Index, Pace: math.Round(sound.Pace(l.Caption)*10) / 10}
		if c.Fast = c.Pace > sound.MostPace; l.Sound == "" {
			c.Scene = film.Shown()[l.Scene].ID
		}
		v.Captions = append(v.Captions, c)
	}
	add := func(q *doc.Sound, sc *doc.Scene, i int, begin, end int64) {
		m := e.Shown.Doc.Media[q.Media]
		if m == nil {
			return
		}
		r := Row{
			ID: q.ID, Name: q.Name, Use: q.Use, Scene: i, Media: q.Media, Begin: begin, End: max(begin, min(end, e.Shown.Order.Length)), Length: end - begin, From: q.From, Lasts: m.Samples * 1000 / sound.Rate,
			Samples: m.Samples, Channels: m.Channels, Speed: q.Rate(), Keeps: q.KeepsPitch, Loops: q.Loops, Gain: q.Gain, Percent: math.Round(1000*sound.Amplitude(q.Gain)) / 10, Points: append([]doc.VolumePoint{}, q.Points...), FadeIn: q.FadeIn, FadeOut: q.FadeOut,
			Curve: q.Curve, Pan: q.Pan, Along: q.Along, Muted: q.Muted, Ends: q.End != nil, Words: when(sc, q), Spoken: q.Spoken,
		}
		for _, p := range s.Parts {
			if p.ID == q.ID {
				r.Course, r.Round = s.Course(p), p.Round()
			}
		}
		r.Beats = append([]int64{}, frame.BeatsOf(q, begin, min(end, e.Shown.Order.Length))...)
		if n := len(r.Beats); n > 1 && r.Beats[n-1] > r.Beats[0] {
			r.Pace = int(math.Round(60000 * float64(n-1) / float64(r.Beats[n-1]-r.Beats[0])))
		}
		r.Course = append([]sound.Corner{}, r.Course...)
		r.Marks = []Mark{}
		for _, m := range q.MarksHeard(begin, min(end, e.Shown.Order.Length)) {
			r.Marks = append(r.Marks, Mark{m.ID, m.At, m.Name})
		}
		if q.Start.When == doc.WhenBegins || q.Start.When == doc.WhenEnds {
			r.Move = q.Start.Of
		}
		v.Rows = append(v.Rows, r)
	}
	for _, q := range film.Sounds {
		add(q, nil, -1, q.Start.Offset, q.Start.Offset+q.Length)
	}
	for i, sc := range film.Shown() {
		for _, q := range sc.Sounds {
			at, t := e.Shown.Order.Begin(i), e.Shown.Timing(i).Sounds[q.ID]
			add(q, sc, i, at+t.Begin, at+t.End)
		}
	}
	return v
}

// when says when a sound is heard.
func when(sc *doc.Scene, q *doc.Sound) string {
	if sc == nil {
		return fmt.Sprintf("with the film, from %s on", words.Seconds(q.Start.Offset))
	}
	name := func(id string) string {
		m, l := sc.Move(id)
		if m == nil {
			return "a move"
		}
		return fmt.Sprintf("%s of %s", motion.Name(m), l.Name)
	}
	s := ""
	switch q.Start.When {
	case doc.AtTime:
		s = fmt.Sprintf("in %s, at %s", sc.Name, words.Seconds(q.Start.Offset))
	case doc.WhenBegins:
		s = "when " + name(q.Start.Of) + " begins"
	case doc.WhenEnds:
		s = "when " + name(q.Start.Of) + " ends"
	case doc.BeforeSceneEnd:
		s = fmt.Sprintf("%s before %s ends", words.Seconds(q.Start.Offset), sc.Name)
	case doc.AtCue:
		s = "at a cue of " + sc.Name
	}
	switch {
	case q.End == nil:
	case q.End.When == doc.BeforeSceneEnd:
		s += ", until the scene ends"
	default:
		s += ", until " + name(q.End.Of) + " " + q.End.When
	}
	return s
}

// Mixed is a stretch of the mix.
type Mixed struct {
	Samples []float32 // left and right in turns
	Wants   []sound.Piece
}

// mostMixed is how many frames are mixed at once at most.
const mostMixed = 10 * sound.Rate

// Mix mixes frames of the film from one on; of some sounds alone, where only names any. What it has not got of recordings is silence, and told in Wants.
func (e *Ear) Mix(from int64, frames int, only []string, level sound.Level) Mixed {
	m := e.heard()
	m.Only, m.Score.Level = only, level
	out := make([]float32, 2*min(max(frames, 0), mostMixed))
	e.Tapes.Wants = nil
	m.Mix(from, out)
	return Mixed{out, e.Tapes.Wants}
}

// Package sound works out what is heard of a film: a score of its sounds on film time, mixed to samples for any stretch of it. Page and files ask the same
// score. Samples are numbers of -1..1, two channels in turns, Rate a second; places are counted in frames, a frame being a sample of each channel.
package sound

import (
	"math"

	"capstan/core/doc"
	"capstan/core/frame"
)

// Rate is how many frames a second has.
const Rate = doc.SampleRate

// Frames returns a time in frames.
func Frames(ms int64) int64 { return ms * (Rate / 1000) }

// Score is what is heard of a film.
type Score struct {
	Length int64   // frames
	Parts  []*Part // in the order of the document
	Level  Level   // by which all of it is brought to a loudness
	backs  []back  // when music steps back
	mix    doc.Mix
}

// Part is one sound on film time.
type Part struct {
	ID         string
	Sound      *doc.Sound
	Scene      int                    // on whose clock it is; -1: the film's
	Begin, End int64                  // frames of the film, half-open; it is heard between them
	Recording  *doc.Media             // whose frames
	where      func(at int64) float64 // how far it pans at a frame of the film, beside its own pan; nil: not
	kernel     *kernel                // for another speed, along which the pitch goes
	grains     *grains                // for another speed at the same pitch
}

// Of makes the score of a film. Muted sounds are no part of what is heard.
func Of(f *frame.Film) *Score {
	film := &f.Doc.Film
	s := &Score{Length: Frames(f.Order.Length), mix: film.Mixed()}
	add := func(q *doc.Sound, scene int, begin, end int64, along func(at int64) float64) {
		m := f.Doc.Media[q.Media]
		if m == nil {
			return
		}
		part := &Part{ID: q.ID, Sound: q, Scene: scene, Begin: Frames(begin), End: min(Frames(end), s.Length), Recording: m, where: along}
		switch {
		case q.Rate() == 1:
		case q.KeepsPitch:
			part.grains = &grains{speed: q.Rate(), runs: map[int64][]int16{}}
		default:
			part.kernel = kernelFor(q.Rate())
		}
		if part.Begin < part.End {
			s.Parts = append(s.Parts, part)
		}
	}
	for _, q := range film.Sounds {
		add(q, -1, q.Start.Offset, q.Start.Offset+q.Length, nil)
	}
	for i, sc := range film.Shown() {
		for _, q := range sc.Sounds {
			at, t := f.Order.Begin(i), f.Timing(i).Sounds[q.ID]
			add(q, i, at+t.Begin, at+t.End, follower(f, i, q))
		}
	}
	s.steps()
	return s
}

// follower is how a sound pans along with the layer of the move that it hangs on; nil where it does not.
func follower(f *frame.Film, i int, q *doc.Sound) func(at int64) float64 {
	if !q.Along {
		return nil
	}
	_, l := f.Doc.Film.Scenes[i].Move(q.Start.Of)
	if l == nil {
		return nil
	}
	begin := Frames(f.Order.Begin(i))
	// Places are asked for at every grid-th frame, and many times for one when stretches overlap: a few are kept.
	known := map[int64]float64{}
	return func(at int64) float64 {
		at -= at % placesApart
		v, ok := known[at]
		if !ok {
			if len(known) > 4096 {
				clear(known)
			}
			v = math.Max(-1, math.Min(1, f.Across(i, l.ID, float64(at-begin)*1000/Rate)))
			known[at] = v
		}
		return v
	}
}

// placesApart is how many frames apart the places of a layer are that a sound pans along with.
const placesApart = Rate / 50

// Recordings are the media of which the score has parts that are heard, each once.
func (s *Score) Recordings() (list []string) {
	seen := map[string]bool{}
	for _, p := range s.Parts {
		if m := p.Sound.Media; !p.Sound.Muted && !seen[m] {
			seen[m] = true
			list = append(list, m)
		}
	}
	return list
}

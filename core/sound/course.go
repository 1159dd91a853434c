package sound

import (
	"math"
	"slices"
	"sort"

	"capstan/core/doc"
)

// How loud a part is goes along a line from grid to grid of film time, so that any stretch of a film comes out the same however it is asked for.
const grid = 64 // frames

// Amplitude returns what samples are multiplied by for so many dB (20 dB are ten times).
func Amplitude(db float64) float64 { return math.Pow(10, db/20) }

// Decibels returns an amplitude in dB.
func Decibels(a float64) float64 { return 20 * math.Log10(a) }

// Faded returns the amplitude of a fade at progress t, 0..1.
func Faded(curve string, t float64) float64 {
	switch t = math.Min(1, math.Max(0, t)); curve {
	case doc.EvenLine:
		return t
	case doc.EvenLevel:
		if t == 0 {
			return 0
		}
		return Amplitude(-fadeDepth * (1 - t))
	}
	return math.Sin(t * math.Pi / 2)
}

// fadeDepth is how far down fades of even decibels go before they are silent, in dB.
const fadeDepth = 60

// volume is the amplitude of a part at a frame of the film, without panning: gain, points, fades, and stepping back.
func (s *Score) volume(p *Part, at int64) float64 {
	q := p.Sound
	db := q.Gain
	since := at - p.Begin
	if len(q.Points) > 0 {
		db += pointed(q.Points, float64(since)*1000/Rate)
	}
	if q.Use == doc.Music {
		db -= s.steppedBack(at)
	}
	a := Amplitude(db)
	if n := Frames(q.FadeIn); since < n {
		a *= Faded(q.Curve, float64(since)/float64(n))
	}
	if n, left := Frames(q.FadeOut), p.End-at; left < n {
		a *= Faded(q.Curve, float64(left)/float64(n))
	}
	return a
}

// pointed is the course of a volume at a time in ms, in dB.
func pointed(points []doc.VolumePoint, ms float64) float64 {
	i := sort.Search(len(points), func(i int) bool { return float64(points[i].At) > ms })
	if i == 0 {
		return points[0].Gain
	}
	a := points[i-1]
	if i == len(points) {
		return a.Gain
	}
	b := points[i]
	return a.Gain + (b.Gain-a.Gain)*(ms-float64(a.At))/float64(b.At-a.At)
}

// back is a stretch in which music stands back, in frames of the film.
type back struct{ begin, end int64 }

// steps finds when music stands back: while voices are heard, and between two of them where there would be no time to come back.
func (s *Score) steps() {
	if s.mix.Back == 0 {
		return
	}
	for _, p := range s.Parts {
		if p.Sound.Use == doc.Voice && !p.Sound.Muted {
			s.backs = append(s.backs, back{p.Begin, p.End})
		}
	}
	sort.Slice(s.backs, func(i, k int) bool { return s.backs[i].begin < s.backs[k].begin })
	near := Frames(s.mix.Up + s.mix.Down)
	var joined []back
	for _, b := range s.backs {
		if n := len(joined); n > 0 && b.begin-joined[n-1].end < near {
			joined[n-1].end = max(joined[n-1].end, b.end)
			continue
		}
		joined = append(joined, b)
	}
	s.backs = joined
}

// steppedBack is how far music stands back at a frame of the film, in dB: all the way when a voice begins, and on its way back from when it has ended.
func (s *Score) steppedBack(at int64) float64 {
	i := sort.Search(len(s.backs), func(i int) bool { return s.backs[i].end > at })
	share := 0.0
	if i > 0 {
		share = 1 - over(at-s.backs[i-1].end, Frames(s.mix.Up))
	}
	if i < len(s.backs) {
		share = max(share, 1-over(s.backs[i].begin-at, Frames(s.mix.Down)))
	}
	return s.mix.Back * share
}

// over is n/of, 0..1; nothing and less is 0.
func over(n, of int64) float64 {
	if n <= 0 {
		return 0
	}
	if n >= of {
		return 1
	}
	return float64(n) / float64(of)
}

// Corner is a corner of a line along film time.
type Corner struct {
	At float64 `json:"at"` // ms of film time
	DB float64 `json:"db"`
}

// sides are the shares of a part's channels in those that are heard: left of left, right of left, left of right, right of right. One channel alone keeps its
// power from side to side; of two, the one that is panned away from goes over into the other (Web Audio API, StereoPannerNode), none louder in the middle.
func sides(channels int, pan float64) [4]float64 {
	pan = math.Min(1, math.Max(-1, pan))
	if pan == 0 {
		if channels == 1 {
			return [4]float64{1, 1, 0, 0}
		}
		return [4]float64{1, 0, 0, 1}
	}
	if channels == 1 {
		a := (pan + 1) * math.Pi / 4
		return [4]float64{math.Sqrt2 * math.Cos(a), math.Sqrt2 * math.Sin(a), 0, 0}
	}
	if pan < 0 {
		a := (pan + 1) * math.Pi / 2
		return [4]float64{1, 0, math.Cos(a), math.Sin(a)}
	}
	a := pan * math.Pi / 2
	return [4]float64{math.Cos(a), math.Sin(a), 0, 1}
}

// panned is how far a part pans at a frame of the film.
func (p *Part) panned(at int64) float64 {
	if p.where == nil {
		return p.Sound.Pan
	}
	// Between two places it goes in a line.
	from := at - at%placesApart
	a, b := p.where(from), p.where(from+placesApart)
	return p.Sound.Pan + a + (b-a)*float64(at-from)/placesApart
}

// fadeSteps is in how many pieces fades are drawn.
const fadeSteps = 8

// Course is how loud a part is along film time, in dB down to -60, as a line to be drawn: with its gain, points, fades, and stepping back.
func (s *Score) Course(p *Part) []Corner {
	q := p.Sound
	at := []int64{p.Begin, p.End - 1}
	for i := range int64(fadeSteps) {
		at = append(at, p.Begin+Frames(q.FadeIn)*(i+1)/fadeSteps, p.End-Frames(q.FadeOut)*(i+1)/fadeSteps)
	}
	for _, v := range q.Points {
		at = append(at, p.Begin+Frames(v.At))
	}
	if q.Use == doc.Music {
		for _, b := range s.backs {
			at = append(at, b.begin-Frames(s.mix.Down), b.begin, b.end, b.end+Frames(s.mix.Up))
		}
	}
	slices.Sort(at)
	var line []Corner
	for _, f := range slices.Compact(at) {
		if f < p.Begin || f >= p.End {
			continue
		}
		line = append(line, Corner{At: float64(f) * 1000 / Rate, DB: math.Max(-fadeDepth, Decibels(s.volume(p, f)))})
	}
	return line
}

package delivery

import (
	"cmp"
	"fmt"
	"slices"
	"sort"
	"strconv"
	"strings"

	"capstan/core/frame"
	"capstan/core/words"
)

// Hold is how long a frame is shown that was timed by hand.
type Hold struct {
	Frame int64 `json:"frame"` // of those the rate makes of the part of the film, from 0
	MS    int64 `json:"ms"`    // 0: it is dropped
}

// Limits of frames timed by hand.
const (
	MaxHolds = 20_000
	MaxHold  = 600_000 // ms
)

// held checks frames timed by hand against those there are and puts them in order.
func held(list []Hold, frames, least int64) ([]Hold, error) {
	if len(list) > MaxHolds {
		return nil, words.New("export.holds", MaxHolds)
	}
	list = slices.Clone(list)
	slices.SortFunc(list, func(a, b Hold) int { return cmp.Compare(a.Frame, b.Frame) })
	dropped := int64(0)
	for i, h := range list {
		switch {
		case h.Frame < 0 || h.Frame >= frames || i > 0 && list[i-1].Frame == h.Frame:
			return nil, words.New("export.hold-gone", h.Frame+1, frames)
		case h.MS != 0 && (h.MS < least || h.MS > MaxHold):
			return nil, words.New("export.hold", least, MaxHold)
		case h.MS == 0:
			dropped++
		}
	}
	if dropped == frames {
		return nil, words.New("export.all-dropped")
	}
	return list, nil
}

// Sequence is which frames of the film a file shows, one after the other, and how long each.
type Sequence struct {
	n      int64
	frames []int64 // nil: each, in order
	ends   []int64 // when each ends, in units; nil: as the rate has it
	unit   int64   // units a millisecond
	length int64   // of all, in units
}

// Sequence returns what a file of the plan shows. Frames timed by hand stay as long as they were given in files whose frames have times of their
// own; in others, which have one rate, the frame is repeated that is shown when each begins.
func (p Plan) Sequence(f *frame.Film) Sequence {
	n, each := p.Frames(f), 1000*p.RateDen
	s := Sequence{n: n, unit: p.RateNum, length: p.length(f) * p.RateNum}
	if len(p.Times) == 0 || Formats[p.Format].Still {
		return s
	}
	natural := func(k int64) int64 { // the last stays up to the end of the film
		if k == n-1 {
			return max(1, s.length-k*each)
		}
		return each
	}
	at, times := int64(0), p.Times
	for k := range n {
		lasts := natural(k)
		if len(times) > 0 && times[0].Frame == k {
			lasts, times = times[0].MS*s.unit, times[1:]
		}
		if lasts > 0 {
			at += lasts
			s.frames, s.ends = append(s.frames, k), append(s.ends, at)
		}
	}
	s.n, s.length = int64(len(s.frames)), at
	if Formats[p.Format].Rests {
		return s
	}
	own, i := s, int64(0)
	s.frames, s.ends = nil, nil
	s.n = max(1, (2*at+each)/(2*each))
	for j := range s.n {
		for i < own.n-1 && own.ends[i] <= j*each {
			i++
		}
		s.frames = append(s.frames, own.frames[i])
	}
	return s
}

// Len is how many frames the file has.
func (s Sequence) Len() int64 { return s.n }

// Frame returns which frame of the film the k-th is.
func (s Sequence) Frame(k int64) int64 {
	if s.frames == nil {
		return k
	}
	return s.frames[k]
}

// Ends returns when each frame ends, in parts of a millisecond of which there are as many as the rate's numerator; nil where all are as the rate has
// them.
func (s Sequence) Ends() []int64 { return s.ends }

// Length is how long the file is, without a pause at its end, in whole ms.
func (s Sequence) Length() int64 { return (s.length + s.unit/2) / s.unit }

// Begins returns when the k-th frame is first shown, in ms of the file, at a rate of num / den frames a second.
func (s Sequence) Begins(k, num, den int64) float64 {
	switch {
	case k == 0:
		return 0
	case s.ends != nil:
		return float64(s.ends[k-1]) / float64(s.unit)
	}
	return 1000 * float64(k) * float64(den) / float64(num)
}

// length is how much of the film the file shows, in ms.
func (p Plan) length(f *frame.Film) int64 { return p.Until(f) - p.From }

// Until is where the part of a film that a plan shows ends, in ms.
func (p Plan) Until(f *frame.Film) int64 {
	if p.To == 0 {
		return f.Order.Length
	}
	return p.To
}

// lasts is about how long a file is, in ms, without working out which frames it shows.
func (p Plan) lasts(f *frame.Film) int64 {
	all := p.length(f)
	for _, h := range p.Times {
		all += h.MS
	}
	if p.RateNum > 0 {
		all -= int64(len(p.Times)) * 1000 * p.RateDen / p.RateNum
	}
	return all
}

// Cell is a frame that a file could show, for whoever times frames by hand.
type Cell struct {
	Frame int64   `json:"frame"`
	At    float64 `json:"at"`   // ms of the film
	MS    float64 `json:"ms"`   // how long it is shown; 0: it is dropped
	Hand  bool    `json:"hand"` // it was timed by hand
}

// Cells returns up to count frames of a plan from one on, those that are dropped too.
func (p Plan) Cells(f *frame.Film, from, count int64) []Cell {
	list, n := []Cell{}, p.Frames(f)
	each := 1000 * float64(p.RateDen) / float64(p.RateNum)
	i := sort.Search(len(p.Times), func(i int) bool { return p.Times[i].Frame >= from })
	for k := max(0, from); k < min(n, from+count); k++ {
		c := Cell{Frame: k, At: float64(p.From) + float64(k)*each, MS: each}
		if k == n-1 {
			c.MS = float64(p.length(f)) - float64(k)*each
		}
		if i < len(p.Times) && p.Times[i].Frame == k {
			c.MS, c.Hand = float64(p.Times[i].MS), true
			i++
		}
		list = append(list, c)
	}
	return list
}

// ReadHolds reads frames timed by hand as people write them: 12=500 13=0 for 500 ms of frame 12 and none of frame 13, counted from 1.
func ReadHolds(text string) (list []Hold, err error) {
	for _, part := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ' ' }) {
		frame, ms, _ := strings.Cut(part, "=")
		k, wrong := strconv.ParseInt(frame, 10, 64)
		v, wrong2 := strconv.ParseInt(ms, 10, 64)
		if wrong != nil || wrong2 != nil || v < 0 {
			return nil, fmt.Errorf("%w (%s)", words.New("export.hold", 1, MaxHold), part)
		}
		list = append(list, Hold{k - 1, v})
	}
	return list, nil
}

package vector

import (
	"math"
	"slices"

	"capstan/core/display"
	"capstan/core/frame"
)

// track is one element through the film: what it shows when.
type track struct {
	op     display.Op
	kind   uint64
	spans  []span
	reads  []reading
	inside [2]*level
	here   bool // in the last look
	layer  *frame.Stretch
}

// span is a time, in ms, from its begin up to but not including its end.
type span struct{ from, to float64 }

// reading is how a track stood at a time. Between two it goes evenly from one to the other.
type reading struct {
	at      float64
	codes   []uint32
	numbers []float64
	begins  bool // a span
}

// level is what lies in one thing, back to front, in an order that holds at all times.
type level struct {
	tracks []*track
	now    []*track // those of the last look
}

// look adds what a level shows at a time. whole is false between the film's frames: what cannot change but by steps stays until the next.
func (l *level) look(items []item, at float64, whole bool) {
	now := l.match(items)
	for _, t := range l.now {
		t.here = false
	}
	for _, t := range now {
		t.here = true
	}
	for _, t := range l.now {
		if !t.here {
			t.end(at)
		}
	}
	for i, t := range now {
		t.take(&items[i], at, whole)
	}
	l.now = now
}

// end closes what is open of a track.
func (t *track) end(at float64) {
	t.spans[len(t.spans)-1].to = at
	for _, l := range t.inside {
		if l != nil {
			l.end(at)
		}
	}
}

func (l *level) end(at float64) {
	for _, t := range l.now {
		t.end(at)
		t.here = false
	}
	l.now = nil
}

func (t *track) open() bool { return len(t.spans) > 0 && math.IsInf(t.spans[len(t.spans)-1].to, 1) }

// take adds how a track stands. Of a stretch in which nothing changes only both ends are kept.
func (t *track) take(it *item, at float64, whole bool) {
	begins := !t.open()
	if begins {
		t.spans = append(t.spans, span{at, math.Inf(1)})
	}
	for i, inner := range it.inside {
		if t.inside[i] != nil {
			t.inside[i].look(inner, at, whole)
		}
	}
	r := reading{at: at, codes: it.codes, numbers: it.numbers, begins: begins}
	if it.allCodes != nil {
		r.codes, r.numbers = it.allCodes, it.allNumbers
	}
	if !begins {
		last := &t.reads[len(t.reads)-1]
		same := slices.Equal(last.codes, r.codes)
		if !whole && (!same && t.op == display.OpOutline || it.allCodes != nil) {
			r.codes, r.numbers, same = last.codes, last.numbers, true
		}
		if n := len(t.reads); same && slices.Equal(last.numbers, r.numbers) && n > 1 && !last.begins &&
			slices.Equal(t.reads[n-2].codes, r.codes) && slices.Equal(t.reads[n-2].numbers, r.numbers) {
			last.at = at
			return
		}
	}
	t.reads = append(t.reads, r)
}

// match finds for each item the track that shows it, and makes tracks for new ones. What stands at both ends as it did in the last look is taken from there:
// most changes are somewhere in between.
func (l *level) match(items []item) []*track {
	n, m := len(items), len(l.now)
	stays := func(i, k int) bool {
		t := l.now[k]
		return t.kind == items[i].kind && (n == m || apart(t.reads[len(t.reads)-1].numbers, items[i].numbers) < asNear)
	}
	head := 0
	for head < min(n, m) && stays(head, head) {
		head++
	}
	if head == n && n == m {
		return slices.Clone(l.now)
	}
	tail := 0
	for tail < min(n, m)-head && stays(n-1-tail, m-1-tail) {
		tail++
	}
	from, to := 0, len(l.tracks)
	if head > 0 {
		from = slices.Index(l.tracks, l.now[head-1]) + 1
	}
	if tail > 0 {
		to = slices.Index(l.tracks, l.now[m-tail])
	}
	last := slices.Clone(l.now[m-tail:])
	out := append(slices.Clone(l.now[:head]), l.align(items[head:n-tail], from, to)...)
	return append(out, last...)
}

// asNear is how far numbers of what stays may lie apart where others come or go.
const asNear = 40

// align finds tracks for items among those from one up to another, and makes others between them: the most of them in order, of those the ones that were
// there in the last look, of those the nearest.
func (l *level) align(items []item, from, to int) []*track {
	tracks := l.tracks[from:to]
	n, m := len(items), len(tracks)
	best := make([]float64, (n+1)*(m+1)) // best[i*(m+1)+k] is the most that items from i on and tracks from k on can be worth
	worth := func(i, k int) float64 {
		t := tracks[k]
		if t.kind != items[i].kind {
			return -1
		}
		v := 1000.0
		if t.open() {
			v += 50
		}
		return v + 40/(1+apart(t.reads[len(t.reads)-1].numbers, items[i].numbers)/100)
	}
	for i := n - 1; i >= 0; i-- {
		for k := m - 1; k >= 0; k-- {
			at := i*(m+1) + k
			best[at] = max(best[at+1], best[at+m+1])
			if w := worth(i, k); w >= 0 {
				best[at] = max(best[at], w+best[at+m+2])
			}
		}
	}
	out := make([]*track, n)
	for i, k := 0, 0; i < n && k < m; {
		at := i*(m+1) + k
		switch w := worth(i, k); {
		case w >= 0 && best[at] == w+best[at+m+2]:
			out[i] = tracks[k]
			i, k = i+1, k+1
		case best[at] == best[at+1]:
			k++
		default:
			i++
		}
	}
	// What is new lies directly over what it follows.
	place := from
	for i, t := range out {
		if t != nil {
			place = slices.Index(l.tracks, t) + 1
			continue
		}
		t = &track{op: items[i].op, kind: items[i].kind, layer: items[i].layer}
		if t.op == opLayer {
			t.inside[0] = &level{}
		}
		for k := range display.Stretches(t.op) {
			if items[i].allCodes == nil {
				t.inside[k] = &level{}
			}
		}
		out[i] = t
		l.tracks = slices.Insert(l.tracks, place, t)
		place++
	}
	return out
}

// apart is how far two readings of one kind lie apart.
func apart(a, b []float64) (sum float64) {
	for i := range min(len(a), len(b), 8) {
		sum += math.Abs(a[i] - b[i])
	}
	return sum
}

// walk calls each for a level's tracks and all that lies in them.
func (l *level) walk(each func(t *track)) {
	if l == nil {
		return
	}
	for _, t := range l.tracks {
		each(t)
		t.inside[0].walk(each)
		t.inside[1].walk(each)
	}
}

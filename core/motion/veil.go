package motion

import "capstan/core/effect"

// Tie is an edge that another layer drives, as effects tell of it.
type Tie = effect.Tie

// Reveal shows a part of something: an opacity times what a front has uncovered that has gone Share of its way across the box.
type Reveal struct {
	Opacity  float64       // 0..1
	Front    *effect.Front // nil: all of it is shown
	Share    float64       // 0..1
	Inverted bool          // shows what the front does not
	Tie      *effect.Tie   // an edge that another layer drives, in place of a front: what lies before Edge on the page shows
	Edge     float64       // page px along the direction of the tie
	Or       bool          // of a tie: what lies before another one shows as well
}

// nothing reports whether the reveal shows nothing.
func (r *Reveal) nothing() bool {
	if r.Tie != nil {
		return r.Opacity <= 0
	}
	return r.Opacity <= 0 || !r.Inverted && r.Share <= 0 || r.Inverted && r.Share >= 1
}

// whole reports whether the reveal shows everything.
func (r *Reveal) whole() bool {
	return r.Opacity >= 1 && r.Tie == nil && (r.Front == nil || !r.Inverted && r.Share >= 1 || r.Inverted && r.Share <= 0)
}

// Join is what makes two parts one.
type Join uint8

// A term is a reveal, or joins the two parts before it.
const (
	Shows Join = iota // no join: the term is a reveal
	Over              // 1 - (1-a)(1-b): what either shows
	Times             // a b: what both show
)

// Term is a reveal, or joins the two parts before it.
type Term struct {
	Join Join
	Reveal
}

// Veil is what shows of something: reveals and joins in postfix order, so that each join takes the two parts before it. An empty one shows
// everything. There are MaxReveals reveals at most.
type Veil []Term

// MaxReveals is how many reveals a veil has at most.
const MaxReveals = 16

// Veils is where the veils are kept that are worked out for one time. It is used again for the next; a nil one gives each memory of its own.
type Veils struct{ terms []Term }

// Reset forgets what was worked out.
func (m *Veils) Reset() { m.terms = m.terms[:0] }

// begin returns a veil to be added to.
func (m *Veils) begin() Veil {
	if m == nil {
		return nil
	}
	return m.terms[len(m.terms):]
}

// end takes a veil that was begun into the memory: the next one lies behind it.
func (m *Veils) end(v Veil) Veil {
	if m != nil {
		m.terms = append(m.terms, v...) // in its own place, unless there was no room
		v = m.terms[len(m.terms)-len(v):]
	}
	return v[:len(v):len(v)]
}

// Of is a veil of one reveal.
func (m *Veils) Of(r Reveal) Veil { return m.end(append(m.begin(), Term{Reveal: r})) }

// reveals counts the reveals.
func (v Veil) reveals() int { return (len(v) + 1) / 2 }

// Nothing reports whether the veil shows nothing of what is under it.
func (v Veil) Nothing() bool {
	return len(v) > 0 && !v.any(func(r *Reveal) bool { return !r.nothing() })
}

// Whole reports whether it shows everything.
func (v Veil) Whole() bool { return len(v) == 0 || v.any((*Reveal).whole) }

// any works out for one of two ends whether reveals reach it: what shows anything, and what shows all, are joined the same way.
func (v Veil) any(of func(*Reveal) bool) bool {
	var is [MaxReveals]bool
	n := 0
	for i := range v {
		switch v[i].Join {
		case Shows:
			is[n] = of(&v[i].Reveal)
			n++
		case Over:
			n--
			is[n-1] = is[n-1] || is[n]
		case Times:
			n--
			is[n-1] = is[n-1] && is[n]
		}
	}
	return is[0]
}

// Lifted returns v with its reveals share of their way to showing everything.
func (m *Veils) Lifted(v Veil, share float64) Veil {
	if len(v) == 0 {
		return nil
	}
	out := m.begin()
	for _, t := range v {
		if t.Tie != nil {
			// s + (1 - s) of what it shows: its edge stays where its driver has it
			out = append(out, t, Term{Reveal: Reveal{Opacity: share}}, Term{Join: Over})
			continue
		}
		if t.Join == Shows {
			t.Opacity += (1 - t.Opacity) * share
			if t.Inverted {
				t.Share *= 1 - share
			} else {
				t.Share += (1 - t.Share) * share
			}
		}
		out = append(out, t)
	}
	return m.end(out)
}

// With returns what two veils show both; where these are too many reveals, what the first shows.
func (m *Veils) With(v, o Veil) Veil {
	switch {
	case len(v) == 0:
		return o
	case len(o) == 0 || v.reveals()+o.reveals() > MaxReveals:
		return v
	}
	out := append(append(m.begin(), v...), o...)
	return m.end(append(out, Term{Join: Times}))
}

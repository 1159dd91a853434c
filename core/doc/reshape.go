package doc

import (
	"slices"
	"sort"
)

// Reshape is what a person has said of how the outline of a thread becomes that of the next scene.
type Reshape struct {
	Way   string     `json:"way,omitzero"`    // how its points go: straight, turned, bent; empty: the simplest that is good
	From  string     `json:"from,omitzero"`   // what the outlines of both scenes were when parts were paired: 16 hexadecimal digits
	To    string     `json:"to,omitzero"`     //
	Parts []PartPair `json:"parts,omitempty"` // parts (subpaths) that become each other; others are paired by themselves
}

// PartPair says that one part of an outline becomes one of another, and which points of both are the same.
type PartPair struct {
	From   int          `json:"from"`             // which part of the earlier outline, from 0, as it is drawn
	To     int          `json:"to"`               // and of the later
	Back   bool         `json:"back,omitzero"`    // the later goes the other way round than it is drawn, against the earlier
	Points [][2]float64 `json:"points,omitempty"` // shares of both lengths, 0..1 from where each is begun to be drawn; they follow each other alike round both
}

// Of a Reshape: how many parts are paired, and points of one pair.
const (
	MaxPartPairs  = 64
	MaxPartPoints = 64
	maxParts      = 10000
)

// Ways of an outline's points.
var OutlineWays = []string{"straight", "turned", "bent"}

// Equal reports whether two of them are the same.
func (b *Reshape) Equal(o *Reshape) bool {
	if b == nil || o == nil {
		return b == o
	}
	return b.Way == o.Way && b.From == o.From && b.To == o.To && slices.EqualFunc(b.Parts, o.Parts, func(p, q PartPair) bool {
		return p.From == q.From && p.To == q.To && p.Back == q.Back && slices.Equal(p.Points, q.Points)
	})
}

// Clone returns a copy that shares nothing.
func (b *Reshape) Clone() *Reshape {
	if b == nil {
		return nil
	}
	c := *b
	c.Parts = slices.Clone(b.Parts)
	for i := range c.Parts {
		c.Parts[i].Points = slices.Clone(c.Parts[i].Points)
	}
	return &c
}

// Follow reports whether points of a pair of parts follow each other alike round both, one by one.
func (p *PartPair) Follow() bool {
	pts := slices.Clone(p.Points)
	sort.Slice(pts, func(i, j int) bool { return pts[i][0] < pts[j][0] })
	falls := 0
	for i, q := range pts {
		next := pts[(i+1)%len(pts)]
		if len(pts) > 1 && (q[0] == next[0] || q[1] == next[1]) {
			return false
		}
		if (next[1] < q[1]) != p.Back {
			falls++
		}
	}
	return falls <= 1
}

func (c *checker) reshape(at string, b *Reshape) {
	if b == nil {
		return
	}
	c.oneOf(at+".way", b.Way, append([]string{""}, OutlineWays...)...)
	for _, hash := range []string{b.From, b.To} {
		if len(hash) > 16 {
			c.fail(at, "names its outlines by more than 16 digits")
		}
	}
	c.most(at+".parts", len(b.Parts), MaxPartPairs)
	from, to := map[int]bool{}, map[int]bool{}
	for _, p := range b.Parts {
		if p.From < 0 || p.To < 0 || p.From >= maxParts || p.To >= maxParts || from[p.From] || to[p.To] {
			c.fail(at+".parts", "pair part %d with part %d; each is paired once", p.From, p.To)
			return
		}
		from[p.From], to[p.To] = true, true
		c.most(at+".parts.points", len(p.Points), MaxPartPoints)
		for _, q := range p.Points {
			c.number(at+".parts.points", q[0], 0, 1)
			c.number(at+".parts.points", q[1], 0, 1)
		}
		if !p.Follow() {
			c.fail(at+".parts.points", "do not follow each other alike round both outlines")
			return
		}
	}
}

package text

import (
	"math"
	"unicode/utf8"

	"capstan/core/doc"
	"capstan/core/geom"

	"github.com/go-text/typesetting/segmenter"
)

// Cells are where the letters of a text lie, for a caret among them. Places in the text count its runes as they are written, from 0
// before the first to Length after the last.
type Cells struct {
	Cells  []Cell // in the order in which they are read
	Length int
	apart  bool // letters of a line do not stand beside each other: on a ring, or stacked
}

// Cell is a letter as its reader sees it: what a caret does not enter. An empty line has one without width.
type Cell struct {
	From, To int
	Line     int
	Corners  [4]geom.Point // of the letter as it stands: upper left, upper right, lower right, lower left
	Left     bool          // it is read from its right to its left
	hangs    bool          // a space where a line is broken
}

// CellsOf returns the cells of a text as Set lays it out.
func CellsOf(b *Book, t *doc.Text, in Room) *Cells {
	s := set(b, t, in, "", true)
	return &Cells{s.cells, s.written(len(s.runes)), t.Ring != nil || t.Stacked}
}

// written is the place of a rune that was set in the text as it is written.
func (s *setter) written(i int) int {
	if s.begins == nil {
		s.begins = []int{0}
		for k, r := range s.text.Runs {
			s.begins = append(s.begins, s.begins[k]+utf8.RuneCountInString(r.Text))
		}
	}
	if i >= len(s.runes) {
		return s.begins[len(s.begins)-1]
	}
	return s.begins[s.runOf[i]] + s.from[i]
}

// foot notes where a line begins: there the caret stands while it is empty.
func (s *setter) foot(top, bottom geom.Point) { s.head = [2]geom.Point{top, bottom} }

// cellsOf adds the cells of the line that has come to its end.
func (s *setter) cellsOf(l *line) {
	n := 0
	if len(s.cells) > 0 {
		n = s.cells[len(s.cells)-1].Line + 1
	}
	if len(s.row) == 0 {
		s.cells = append(s.cells, Cell{From: s.written(l.from), To: s.written(l.to), Line: n, Corners: [4]geom.Point{s.head[0], s.head[0], s.head[1], s.head[1]}})
	}
	first := len(s.cells)
	for i := 0; i < len(s.row); {
		k := i + 1
		for k < len(s.row) && s.row[k].g.Cluster == s.row[i].g.Cluster {
			k++
		}
		a, b := s.row[i].corners, s.row[k-1].corners
		g := s.row[i].g
		s.split(g.Cluster, min(g.next, l.to), Cell{Line: n, Corners: [4]geom.Point{a[0], b[1], b[2], a[3]}, Left: g.level%2 == 1})
		i = k
	}
	if s.text.Stacked { // read downwards
		for i := first; i < len(s.cells); i++ {
			c := &s.cells[i]
			c.Corners = [4]geom.Point{c.Corners[1], c.Corners[2], c.Corners[3], c.Corners[0]}
		}
	}
}

// split adds a cell for each letter among runes[from:to], which one shape shows, all of one width: where letters of a ligature meet,
// fonts rarely say.
func (s *setter) split(from, to int, c Cell) {
	var ends []int
	if to-from > 1 {
		var seg segmenter.Segmenter
		seg.Init(s.runes[from:to])
		for it := seg.GraphemeIterator(); it.Next(); {
			g := it.Grapheme()
			ends = append(ends, from+g.Offset+len(g.Text))
		}
	}
	if len(ends) == 0 {
		ends = []int{to}
	}
	whole := c.Corners
	at := from
	for i, end := range ends {
		lo, hi := float64(i)/float64(len(ends)), float64(i+1)/float64(len(ends))
		if c.Left {
			lo, hi = 1-hi, 1-lo
		}
		k := c
		k.From, k.To = s.written(at), s.written(end)
		k.Corners = [4]geom.Point{whole[0].Lerp(whole[1], lo), whole[0].Lerp(whole[1], hi), whole[3].Lerp(whole[2], hi), whole[3].Lerp(whole[2], lo)}
		k.hangs = s.runes[at] == ' ' || s.runes[at] == '\t'
		at = end
		// A letter that is set as two, as a sharp s in capitals, is one still.
		if n := len(s.cells); n > 0 && s.cells[n-1].From == s.cells[n-1].To && s.cells[n-1].From == k.From && s.cells[n-1].Line == k.Line {
			was := s.cells[n-1].Corners
			k.Corners = [4]geom.Point{was[0], k.Corners[1], k.Corners[2], was[3]}
			s.cells[n-1] = k
			continue
		}
		s.cells = append(s.cells, k)
	}
}

// begins is the edge at which the cell is begun to be read, from its top to its foot; ends that at which it ends.
func (c *Cell) begins() [2]geom.Point {
	if c.Left {
		return [2]geom.Point{c.Corners[1], c.Corners[2]}
	}
	return [2]geom.Point{c.Corners[0], c.Corners[3]}
}

func (c *Cell) ends() [2]geom.Point {
	if c.Left {
		return [2]geom.Point{c.Corners[0], c.Corners[3]}
	}
	return [2]geom.Point{c.Corners[1], c.Corners[2]}
}

// at returns the cell a caret stands at, and whether it stands at its end.
func (c *Cells) at(i int) (cell int, end bool) {
	best := -1
	for k := range c.Cells {
		switch v := &c.Cells[k]; {
		case v.From == i:
			return k, false
		case v.To == i:
			best, end = k, true
		case v.From < i && i < v.To && best < 0:
			best, end = k, false
		}
	}
	return max(best, 0), end
}

// Caret returns the line in which a caret stands at a place, from its top to its foot. Where a line is broken it stands at the
// begin of the next.
func (c *Cells) Caret(i int) (top, foot geom.Point) {
	k, end := c.at(i)
	e := c.Cells[k].begins()
	if end {
		e = c.Cells[k].ends()
	}
	return e[0], e[1]
}

// Nearest returns the place nearest to a point: of the line that is there, else of the nearest.
func (c *Cells) Nearest(q geom.Point) int {
	return c.nearest(q, func(int) bool { return true })
}

func (c *Cells) nearest(q geom.Point, within func(line int) bool) int {
	out, least, over := 0, math.Inf(1), math.Inf(1)
	for i := range c.Cells {
		v := &c.Cells[i]
		if !within(v.Line) {
			continue
		}
		down := v.Corners[3].Sub(v.Corners[0])
		high := math.Max(down.Len(), 1e-9)
		down = down.Mul(1 / high)
		along := geom.Point{X: down.Y, Y: -down.X} // to the right of its upper edge
		wide := v.Corners[1].Sub(v.Corners[0]).Len()
		d := q.Sub(v.Corners[0])
		x, y := d.X*along.X+d.Y*along.Y, d.X*down.X+d.Y*down.Y
		dx, dy := outside(x, wide), outside(y, high)
		if c.apart {
			dx, dy = math.Hypot(dx, dy), 0
		}
		if dy > over || dy == over && dx >= least {
			continue
		}
		least, over = dx, dy
		out = v.From
		if (x > wide/2) != v.Left {
			out = v.To
			if v.hangs && c.last(i) {
				out = v.From // what hangs over the end of a line belongs to its end
			}
		}
	}
	return out
}

// last reports whether a cell is the last of a line that goes on in the next.
func (c *Cells) last(i int) bool {
	return i+1 < len(c.Cells) && c.Cells[i+1].Line != c.Cells[i].Line && c.Cells[i+1].From == c.Cells[i].To
}

func outside(v, to float64) float64 { return math.Max(math.Max(-v, v-to), 0) }

// LineOf returns where the line at a place begins and ends; a space over which it was broken is past its end.
func (c *Cells) LineOf(i int) (from, to int) {
	k, _ := c.at(i)
	n := c.Cells[k].Line
	from, to = c.Length, 0
	for k := range c.Cells {
		if v := &c.Cells[k]; v.Line == n {
			from = min(from, v.From)
			if v.hangs && c.last(k) {
				to = max(to, v.From)
			} else {
				to = max(to, v.To)
			}
		}
	}
	return
}

// Across returns the place one line up (-1) or down (1) from a place, nearest to where goal lies along the lines; past the first line
// it is the begin of the text, past the last its end.
func (c *Cells) Across(i, by int, goal geom.Point) int {
	k, _ := c.at(i)
	to := c.Cells[k].Line + by
	if to < 0 {
		return 0
	}
	if to > c.Cells[len(c.Cells)-1].Line {
		return c.Length
	}
	return c.nearest(goal, func(line int) bool { return line == to })
}

// Stretch returns the outlines of what lies between two places: one for each line, or for each letter where they stand apart.
func (c *Cells) Stretch(from, to int) [][4]geom.Point {
	var out [][4]geom.Point
	for i := 0; i < len(c.Cells); i++ {
		v := c.Cells[i]
		if v.From >= to || v.To <= from || v.From == v.To {
			continue
		}
		// Letters beside each other in one line are marked as one.
		if n := len(out); n > 0 && !c.apart && c.Cells[i-1].Line == v.Line && c.Cells[i-1].Left == v.Left && c.Cells[i-1].From >= from {
			if v.Left {
				out[n-1][0], out[n-1][3] = v.Corners[0], v.Corners[3]
			} else {
				out[n-1][1], out[n-1][2] = v.Corners[1], v.Corners[2]
			}
			continue
		}
		out = append(out, v.Corners)
	}
	return out
}

// WordAt returns the word at a place of a text, or what stands between words there.
func WordAt(text []rune, i int) (from, to int) {
	if len(text) == 0 {
		return 0, 0
	}
	kind := func(r rune) int {
		switch {
		case r == '\n':
			return 0
		case inWord(r):
			return 1
		case r == ' ' || r == '\t':
			return 2
		}
		return 3
	}
	at := min(max(i, 0), len(text)-1)
	if at > 0 && at == i && kind(text[at]) != 1 && kind(text[at-1]) == 1 {
		at-- // just after a word
	}
	k := kind(text[at])
	from, to = at, at
	for from > 0 && kind(text[from-1]) == k {
		from--
	}
	for to < len(text) && kind(text[to]) == k {
		to++
	}
	if k == 0 {
		return i, i
	}
	return from, to
}

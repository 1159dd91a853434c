package raster

import (
	"image"

	"capstan/core/display"
	"capstan/core/frame"
)

// Canvas holds a frame of a film and paints the next one by what changes: it restores the tiles that are damaged, from a
// kept picture of what has been standing still at the bottom, and paints there what touches them. What comes out is what
// Painter.Paint makes, byte for byte.
type Canvas struct {
	painter  *Painter
	img      *image.RGBA
	now      Survey // what img shows
	next     Survey
	fresh    bool // shows nothing yet
	damage   *Region
	backdrop *image.RGBA
	under    Survey // its items are what backdrop shows
	waiting  int    // how many items would have made a better backdrop the last time
}

// NewCanvas returns a canvas of w x h px for lists of p's film.
func NewCanvas(p *Painter, w, h int) *Canvas {
	return &Canvas{painter: p, img: image.NewRGBA(image.Rect(0, 0, w, h)), fresh: true, damage: NewRegion(w, h)}
}

// Image returns what was shown last. It is valid until the next Show.
func (c *Canvas) Image() *image.RGBA { return c.img }

// Damage returns the tiles that the last Show painted.
func (c *Canvas) Damage() *Region { return c.damage }

// Show paints a list, scaled so that the page fills the canvas.
func (c *Canvas) Show(l *frame.List) error {
	if err := c.painter.Survey(&c.next, l, c.img.Rect.Dx(), c.img.Rect.Dy()); err != nil {
		return err
	}
	return c.show()
}

// ShowSurvey is Show for a list that has been cut into items, for the size of the canvas.
func (c *Canvas) ShowSurvey(s *Survey) error {
	c.next.Set(s)
	return c.show()
}

func (c *Canvas) show() error {
	c.damage.Clear()
	still := 0
	if c.fresh {
		c.damage.All()
	} else {
		Damage(c.damage, &c.now, &c.next)
		still = common(&c.now, &c.next)
	}
	c.now, c.next = c.next, c.now
	if c.damage.Empty() {
		return nil
	}
	c.fresh = true // until all is painted: an error leaves half a frame
	if err := c.keepBackdrop(still); err != nil {
		return err
	}
	if err := c.paint(); err != nil {
		return err
	}
	c.fresh = false
	return nil
}

// keepBackdrop sees to it that the backdrop shows the first items of the list, once it is worth it: still items have been
// the same in the list before.
func (c *Canvas) keepBackdrop(still int) error {
	n := len(c.under.items)
	if n > 0 && common(&c.under, &c.now) < n {
		c.under.items, n = c.under.items[:0], 0
	}
	first := c.now.first(still)
	if still-first < 2 && (still == 0 || plainFill(&c.now, first)) {
		return nil // filling with a colour is as quick as copying
	}
	if still <= n {
		return nil
	}
	if c.waiting != still {
		c.waiting = still
		return nil
	}
	if c.backdrop == nil {
		c.backdrop = image.NewRGBA(c.img.Rect)
	}
	c.under.Set(&c.now)
	c.under.items = c.under.items[:still]
	s := surfaceOf(c.backdrop)
	s.wipe(s.box)
	return c.painter.items(s, &c.now, first, still)
}

func plainFill(s *Survey, i int) bool {
	it := &s.items[i]
	return s.codes[it.c0] == display.OpFill && s.codes[it.c0+2] == 0
}

// first returns where painting the first n items may begin: at the last that hides all under it.
func (s *Survey) first(n int) int {
	for i := n - 1; i > 0; i-- {
		if s.items[i].covers {
			return i
		}
	}
	return 0
}

func (c *Canvas) paint() error {
	s := surfaceOf(c.img)
	s.clip = c.damage
	from, n := c.now.first(len(c.now.items)), len(c.under.items)
	switch {
	case from >= n && from < len(c.now.items) && c.now.items[from].covers:
		// All that was there is painted over.
	case n > 0:
		c.damage.Each(func(b image.Rectangle) {
			for y := b.Min.Y; y < b.Max.Y; y++ {
				i, k := c.img.PixOffset(b.Min.X, y), c.img.PixOffset(b.Max.X, y)
				copy(c.img.Pix[i:k], c.backdrop.Pix[i:k])
			}
		})
		from = n
	default:
		c.damage.Each(s.wipe)
	}
	return c.painter.items(s, &c.now, from, len(c.now.items))
}

// items paints the items from..to of a list on s, those that touch its clip.
func (p *Painter) items(s *surface, l *Survey, from, to int) error {
	return p.bands(s, l.depth, func(s *surface) error { return p.itemsOn(s, l, from, to) })
}

func (p *Painter) itemsOn(s *surface, l *Survey, from, to int) error {
	view := l.view()
	for i := from; i < to; i++ {
		it := &l.items[i]
		if !it.box.Overlaps(s.box) || s.clip != nil && !s.clip.Touches(it.box.Intersect(s.box)) {
			continue
		}
		r := &reader{codes: l.codes[:it.c1], numbers: l.numbers[:it.n1], c: it.c0, n: it.n0}
		if err := p.item(s, r, view); err != nil {
			return err
		}
		if r.short {
			return errList
		}
	}
	return nil
}

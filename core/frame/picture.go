package frame

import (
	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/state"
)

func (f *Film) compilePicture(_ *scene, l *layer) {
	l.shapes = []shape{{key: f.Geometry.rectangle(l.box, l.doc.Corner)}}
	l.picture = f.pictureIndex(l.doc.Picture.Shows())
	if _, mask := doc.Shown(l.doc.Picture.Shows()); mask != "" && f.Doc.Media[mask] != nil {
		l.covers = doc.Covered(f.Doc.Media[mask].Covers)
	}
}

// seenAt reports whether a picture that is cut out is seen near a point of its own axes.
func (l *layer) seenAt(q geom.Point) bool {
	if l.covers == nil {
		return true
	}
	u := l.doc.Picture
	whole := wholeOf(l.box, u.Cropped())
	if u.Turn != 0 {
		whole = turnedIn(l.box, u.Turn, geom.Point{X: 1, Y: 1}).Mul(whole)
	}
	inv, ok := whole.Inverse()
	if !ok {
		return true
	}
	q = inv.Apply(q)
	return l.covers.At(q.X, q.Y)
}

// one is a box of 1 by 1.
var one = geom.Box{Max: geom.Point{X: 1, Y: 1}}

// thinnest is the smallest part of a picture that a morph or a change comes by, each way, as a share of it.
const thinnest = 1e-4

// part is the part of its file that a node shows, and how far that is turned in its frame: of one picture, it moves from one part to another.
func (n *node) part() (crop doc.Crop, turn float64) {
	u := n.layer.doc.Picture
	crop, turn = u.Cropped(), u.Turn
	if n.other != nil && n.other.doc.Picture != nil {
		v := n.other.doc.Picture
		to := v.Cropped()
		for k := range crop {
			crop[k] = min(1, max(0, crop[k]+(to[k]-crop[k])*n.share))
		}
		turn += (v.Turn - turn) * n.share
		for k := range 2 { // an easing that overshoots may lead beyond nothing
			if crop[k+2]-crop[k] < thinnest {
				at := min(max((crop[k]+crop[k+2])/2, thinnest/2), 1-thinnest/2)
				crop[k], crop[k+2] = at-thinnest/2, at+thinnest/2
			}
		}
	}
	return
}

func (p *Player) picture(n *node, v View, alpha float64, m geom.Matrix) {
	d := n.layer.doc
	box, key := n.layer.box, n.layer.shapes[0].key
	if n.sized {
		m = m.Mul(n.stretch())
	}
	crop, turn := n.part()
	media := p.film.Doc.Media[d.Picture.Media]
	mip := uint32(0)
	if media != nil && box.W() > 0 && box.H() > 0 {
		across := geom.Point{X: m.A, Y: m.B}.Len() * box.W() * v.Scale / (float64(media.Width) * (crop[2] - crop[0]))
		down := geom.Point{X: m.C, Y: m.D}.Len() * box.H() * v.Scale / (float64(media.Height) * (crop[3] - crop[1]))
		mip = state.MipFor(across, down, media.Width, media.Height)
	}
	l := &p.list
	if turn == 0 {
		l.Op(display.OpPicture, n.layer.picture, mip, key)
		l.Matrix(m)
		l.Num(box.Min.X, box.Min.Y, box.W(), box.H(), crop[0], crop[1], crop[2], crop[3], alpha)
		l.Covers(m, box)
		return
	}
	k := n.stretched()
	if k.X <= 0 || k.Y <= 0 {
		return // nothing of it is seen
	}
	// All of it, turned, under its frame.
	l.Op(display.OpClip, key, 0)
	in := l.OpenBox()
	l.Matrix(m)
	l.Op(display.OpPicture, n.layer.picture, mip, p.film.unit)
	l.Matrix(m.Mul(turnedIn(box, turn, k)).Mul(wholeOf(box, crop)))
	l.Num(0, 0, 1, 1, 0, 0, 1, 1, alpha)
	l.Covers(m, box)
	l.Op(display.OpEnd)
	l.CloseBox(in)
}

// stretched is how much wider than high the node's own axes are drawn than those of its layer, each way.
func (n *node) stretched() geom.Point {
	if !n.sized || n.layer.box.W() <= 0 || n.layer.box.H() <= 0 {
		return geom.Point{X: 1, Y: 1}
	}
	return geom.Point{X: n.size.X / n.layer.box.W(), Y: n.size.Y / n.layer.box.H()}
}

// turnedIn turns about the middle of a box whose axes are stretched afterwards: what is turned keeps its proportions then.
func turnedIn(box geom.Box, degrees float64, k geom.Point) geom.Matrix {
	c := box.Centre()
	return geom.Translate(c).Mul(geom.Scale(1/k.X, 1/k.Y)).Mul(geom.Rotate(degrees)).Mul(geom.Scale(k.X, k.Y)).Mul(geom.Translate(geom.Point{X: -c.X, Y: -c.Y}))
}

// wholeOf maps a box of 1 by 1 to where all of a picture lies whose part is the box.
func wholeOf(box geom.Box, crop doc.Crop) geom.Matrix {
	w, h := box.W()/(crop[2]-crop[0]), box.H()/(crop[3]-crop[1])
	return geom.Matrix{A: w, D: h, E: box.Min.X - crop[0]*w, F: box.Min.Y - crop[1]*h}
}

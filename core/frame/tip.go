package frame

import (
	"fmt"
	"math"

	"capstan/core/geom"
	"capstan/core/state"
)

// tip is where something is being drawn.
type tip struct {
	pen   *state.Pen
	tool  []shape
	at    geom.Point // on the page
	turn  float64    // degrees
	alpha float64
}

// tool returns the outlines of what follows a tip, in the colours of a scene.
func (f *Film) tool(name string, s *scene) (shapes []shape) {
	for i, q := range state.Tool(name) {
		key := f.Geometry.key(fmt.Sprint("tool", name, i), func() *geom.Path { return q.Path })
		shapes = append(shapes, shape{key: key, paint: Paint{Colour: state.Colour(q.Colour, q.Role, q.Tone, s.doc)}})
	}
	return
}

// comesFor is the share of the lines in which what draws them comes, and goes again.
const comesFor = 0.03

// tip notes where a node is being drawn when a share of its lines is; lines is the share of all that are drawn along with it.
func (p *Player) tip(n *node, d *drawing, share float64, pen *state.Pen, lines float64) {
	if len(d.tool) == 0 && pen.Layer == "" || len(d.lines) == 0 {
		return
	}
	i, of := d.at(share)
	l := &d.lines[i]
	at, _ := l.measure.At(of)
	// It turns by how far the line goes to the side about here, so that corners do not jerk it.
	turn := 0.0
	if length := l.measure.Length(); length > 0 {
		about := min(0.5, max(pen.Size/4, 10)/length)
		a, _ := l.measure.At(max(0, of-about))
		b, _ := l.measure.At(min(1, of+about))
		turn = pen.Swing * n.m.ApplyVector(b.Sub(a)).X / max(2*about*length*n.m.MaxScale(), 1e-9)
	}
	p.tips = append(p.tips, tip{
		pen: pen, tool: d.tool, at: n.m.Apply(at), turn: min(pen.Swing, max(-pen.Swing, turn)),
		alpha: min(1, lines/comesFor, (1-lines)/comesFor),
	})
}

// paint writes the tool at a tip.
func (t *tip) paint(p *Player, v View) {
	if t.alpha <= 0 || len(t.tool) == 0 {
		return
	}
	k := t.pen.Size / 100
	m := geom.Translate(t.at).Mul(geom.Rotate(t.turn)).Mul(geom.Scale(k, k))
	one := Effects{Opacity: t.alpha}
	g := p.list.Group(&one)
	for i := range t.tool {
		p.fill(t.tool[i].key, m, &t.tool[i].paint, 1)
	}
	p.list.EndGroup(g, &one)
}

// followTips brings the layers that follow tips to where these are; without a tip they are gone.
func (p *Player) followTips() {
	if p.film.points == nil {
		return
	}
	for i := range p.nodes {
		n := &p.nodes[i]
		if n.layer == nil || n.kind == pieceNode || !p.film.points[n.layer] {
			continue
		}
		var at *tip
		for k := range p.tips {
			if p.tips[k].pen.Layer == n.layer.doc.Thread {
				at = &p.tips[k]
				break
			}
		}
		by, alpha := geom.Identity, 0.0
		if at != nil {
			by = geom.Translate(at.at).Mul(geom.Rotate(at.turn)).Mul(geom.Translate(n.m.Apply(n.layer.pivot).Mul(-1)))
			alpha = at.alpha
		}
		if n.alpha *= alpha; math.IsNaN(n.alpha) {
			n.alpha = 0
		}
		for k := i; k < n.end; k++ {
			p.nodes[k].m = by.Mul(p.nodes[k].m)
			if alpha == 0 {
				p.nodes[k].alpha = 0
			}
		}
	}
}

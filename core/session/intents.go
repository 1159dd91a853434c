package session

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
)

// intents turn what a person asks for (add a rectangle, group this, fade it in) into a command, with the defaults of
// docs/motion.md. They change nothing themselves.
var intents = map[string]func(s *Session, m Moment, raw json.RawMessage) (edit.Command, error){}

func intent[C any](name string, f func(s *Session, m Moment, c *C) (edit.Command, error)) {
	intents[name] = func(s *Session, m Moment, raw json.RawMessage) (edit.Command, error) {
		c := new(C)
		d := json.NewDecoder(bytes.NewReader(raw))
		d.DisallowUnknownFields()
		if err := d.Decode(c); err != nil {
			return nil, fmt.Errorf("%s cannot be read: %w", name, err)
		}
		return f(s, m, c)
	}
}

// Intent returns the command that carries out what is asked for at a moment; nil when there is nothing to do.
func (s *Session) Intent(name string, m Moment, raw json.RawMessage) (edit.Command, error) {
	f := intents[name]
	if f == nil {
		return nil, fmt.Errorf("There is no intent %q.", name)
	}
	return f(s, m, raw)
}

type threads struct {
	Threads []string `json:"threads"`
}

// nameFor proposes a layer name that the scene does not have yet.
func nameFor(sc *doc.Scene, base string) string {
	taken := map[string]bool{}
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { taken[l.Name] = true; return true })
	if !taken[base] {
		return base
	}
	for n := 2; ; n++ {
		if name := fmt.Sprintf("%s %d", base, n); !taken[name] {
			return name
		}
	}
}

// tintFor picks the tint that fewest layers of the scene have.
func tintFor(sc *doc.Scene) int {
	var used [8]int
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { used[l.Tint&7]++; return true })
	best := 0
	for i, n := range used {
		if n < used[best] {
			best = i
		}
	}
	return best
}

// shapeFills are what new shapes are filled with, in turn.
var shapeFills = []string{"#d8573a", "#e0a03a", "#3f7f86", "#17403c", "#f3dca6"}

func (s *Session) newLayer(sc *doc.Scene, name, kind string) *doc.Layer {
	return &doc.Layer{
		ID: s.id(), Thread: s.id(), Name: nameFor(sc, name), Kind: kind, Opacity: 1, Tint: tintFor(sc),
		Fill: doc.Fill{Kind: doc.NoFill},
	}
}

func (s *Session) addCommand(sc *doc.Scene, l *doc.Layer) edit.Command {
	return command("layer.add", map[string]any{"scene": sc.ID, "layers": []*doc.Layer{l}})
}

func (s *Session) centre() geom.Point {
	f := s.doc.Film
	return geom.Point{X: float64(f.Width) / 2, Y: float64(f.Height) / 2}
}

func init() {
	intent("add.shape", func(s *Session, m Moment, c *struct {
		Kind string      `json:"kind"`
		Box  *[4]float64 `json:"box"` // x y w h on the page; absent: in the middle
	}) (edit.Command, error) {
		sc := s.scene(m)
		name := map[string]string{doc.Rectangle: "Rectangle", doc.Ellipse: "Ellipse"}[c.Kind]
		if name == "" {
			return nil, fmt.Errorf("Capstan draws no %q yet.", c.Kind)
		}
		l := s.newLayer(sc, name, c.Kind)
		n := 0
		doc.Walk(sc.Layers, func(k, _ *doc.Layer) bool {
			if k.Kind == doc.Rectangle || k.Kind == doc.Ellipse {
				n++
			}
			return true
		})
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: shapeFills[n%len(shapeFills)]}
		side := math.Round(float64(min(s.doc.Film.Width, s.doc.Film.Height)) / 4)
		mid := s.centre()
		l.Place = doc.Place{X: mid.X, Y: mid.Y, W: side, H: side}
		if b := c.Box; b != nil && b[2] >= 1 && b[3] >= 1 {
			l.Place = doc.Place{X: b[0] + b[2]/2, Y: b[1] + b[3]/2, W: b[2], H: b[3]}
		}
		return s.addCommand(sc, l), nil
	})
	intent("add.text", func(s *Session, m Moment, c *struct {
		At   *[2]float64 `json:"at"`
		Text string      `json:"text"`
	}) (edit.Command, error) {
		sc := s.scene(m)
		l := s.newLayer(sc, "Text", doc.TextKind)
		size := math.Round(float64(min(s.doc.Film.Width, s.doc.Film.Height)) / 11)
		words := c.Text
		if words == "" {
			words = "Text"
		}
		l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: words, Family: "Archivo", Weight: 600, Size: size}}}
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: readable(sc.Background)}
		at := s.centre()
		if c.At != nil {
			at = geom.Point{X: c.At[0], Y: c.At[1]}
		}
		l.Place = doc.Place{X: at.X, Y: at.Y - size*0.6}
		return s.addCommand(sc, l), nil
	})
	intent("add.picture", func(s *Session, m Moment, c *struct {
		Hash  string      `json:"hash"`
		Media *doc.Media  `json:"media"`
		At    *[2]float64 `json:"at"`
	}) (edit.Command, error) {
		if c.Media == nil {
			return nil, fmt.Errorf("There is no picture to add.")
		}
		sc := s.scene(m)
		base := strings.TrimSpace(strings.TrimSuffix(c.Media.Name, extension(c.Media.Name)))
		if base == "" {
			base = "Picture"
		}
		l := s.newLayer(sc, base, doc.Picture)
		l.Picture = &doc.PictureUse{Media: c.Hash}
		w, h := float64(c.Media.Width), float64(c.Media.Height)
		k := min(1, float64(s.doc.Film.Width)/w, float64(s.doc.Film.Height)/h)
		at := s.centre()
		if c.At != nil {
			at = geom.Point{X: c.At[0], Y: c.At[1]}
		}
		l.Place = doc.Place{X: at.X, Y: at.Y, W: w * k, H: h * k}
		return batch([]edit.Command{
			command("media.add", map[string]any{"hash": c.Hash, "media": c.Media}), s.addCommand(sc, l),
		}), nil
	})
	intent("delete", func(s *Session, m Moment, c *struct {
		Threads    []string `json:"threads"`
		Everywhere bool     `json:"everywhere"`
	}) (edit.Command, error) {
		var gone []string
		for i, sc := range s.doc.Film.Scenes {
			if c.Everywhere || i == s.sceneIndex(m) {
				var list []*doc.Layer
				for _, t := range c.Threads {
					if l := sc.Thread(t); l != nil {
						list = append(list, l)
					}
				}
				gone = append(gone, ids(outermost(sc, list))...)
			}
		}
		if len(gone) == 0 {
			return nil, nil
		}
		return command("layer.delete", map[string]any{"ids": gone}), nil
	})
	intent("duplicate", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		list := outermost(s.scene(m), s.layers(m, c.Threads))
		if len(list) == 0 {
			return nil, nil
		}
		d := math.Round(float64(s.doc.Film.Width) / 60)
		return command("layer.duplicate", map[string]any{"ids": ids(list), "seed": s.id(), "dx": d, "dy": d}), nil
	})
	intent("group", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		sc := s.scene(m)
		list := outermost(sc, s.layers(m, c.Threads))
		if len(list) == 0 {
			return nil, nil
		}
		b := geom.EmptyBox()
		i := s.sceneIndex(m)
		for _, l := range list {
			box, _ := s.shown.Box(i, l.ID)
			b = b.Union(s.shown.Ancestry(i, l.ID).Mul(s.shown.RestMatrix(i, l.ID)).ApplyBox(box))
		}
		at := b.Centre()
		return command("layer.group", map[string]any{
			"ids": ids(list), "id": s.id(), "thread": s.id(), "name": nameFor(sc, "Group"), "tint": list[len(list)-1].Tint,
			"x": at.X, "y": at.Y,
		}), nil
	})
	intent("ungroup", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		var groups []*doc.Layer
		for _, l := range s.layers(m, c.Threads) {
			if l.Kind == doc.Group {
				groups = append(groups, l)
			}
		}
		if len(groups) == 0 {
			return nil, nil
		}
		return command("layer.ungroup", map[string]any{"ids": ids(groups)}), nil
	})
	intent("order", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		To      string   `json:"to"` // front, back, up, down
	}) (edit.Command, error) {
		return s.reorder(m, c.Threads, c.To)
	})
	intent("order.before", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Target  string   `json:"target"` // the row they are dropped on
		Where   string   `json:"where"`  // above, below, inside
	}) (edit.Command, error) {
		return s.drop(m, c.Threads, c.Target, c.Where)
	})
	intent("nudge", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		DX      float64  `json:"dx"`
		DY      float64  `json:"dy"`
	}) (edit.Command, error) {
		var list []map[string]any
		for _, l := range outermost(s.scene(m), s.layers(m, c.Threads)) {
			d := geom.Point{X: c.DX, Y: c.DY}
			if inv, ok := s.shown.Ancestry(s.sceneIndex(m), l.ID).Inverse(); ok {
				d = inv.ApplyVector(d)
			}
			list = append(list, placeOf(l.ID, map[string]any{"x": l.Place.X + d.X, "y": l.Place.Y + d.Y}))
		}
		if len(list) == 0 {
			return nil, nil
		}
		return setPlaces(list), nil
	})
	intent("set", func(s *Session, m Moment, c *struct {
		Threads []string        `json:"threads"`
		Patch   json.RawMessage `json:"patch"`
	}) (edit.Command, error) {
		var list []map[string]any
		for _, l := range s.layers(m, c.Threads) {
			list = append(list, map[string]any{"id": l.ID, "patch": c.Patch})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return command("layer.set", map[string]any{"set": list}), nil
	})
	intent("set.everywhere", func(s *Session, _ Moment, c *struct {
		Thread string          `json:"thread"`
		Patch  json.RawMessage `json:"patch"`
	}) (edit.Command, error) {
		var list []map[string]any
		for _, sc := range s.doc.Film.Scenes {
			if l := sc.Thread(c.Thread); l != nil {
				list = append(list, map[string]any{"id": l.ID, "patch": c.Patch})
			}
		}
		return command("layer.set", map[string]any{"set": list}), nil
	})
	intent("place", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		X       *float64 `json:"x"` // of the box's middle, in the parent's axes
		Y       *float64 `json:"y"`
		W       *float64 `json:"w"`
		H       *float64 `json:"h"`
		Turn    *float64 `json:"turn"`
	}) (edit.Command, error) {
		var list []edit.Command
		for _, l := range s.layers(m, c.Threads) {
			list = append(list, s.place(m, l, c.X, c.Y, c.W, c.H, c.Turn)...)
		}
		if len(list) == 0 {
			return nil, nil
		}
		return batch(list), nil
	})
	intent("text.style", func(s *Session, m Moment, c *struct {
		Threads []string        `json:"threads"`
		Patch   json.RawMessage `json:"patch"`
	}) (edit.Command, error) {
		return command("text.style", map[string]any{"ids": ids(s.layers(m, c.Threads)), "patch": c.Patch}), nil
	})
	intent("text.words", func(s *Session, m Moment, c *struct {
		Thread string `json:"thread"`
		Text   string `json:"text"`
	}) (edit.Command, error) {
		l := s.scene(m).Thread(c.Thread)
		if l == nil {
			return nil, fmt.Errorf("That text is no longer there.")
		}
		list := []edit.Command{command("text.words", map[string]any{"id": l.ID, "text": c.Text})}
		if first := strings.TrimSpace(strings.SplitN(c.Text, "\n", 2)[0]); first != "" && strings.HasPrefix(l.Name, "Text") {
			if r := []rune(first); len(r) > 40 {
				first = string(r[:40])
			}
			list = append(list, command("layer.set", map[string]any{"set": []any{map[string]any{"id": l.ID, "patch": map[string]any{"name": first}}}}))
		}
		return batch(list), nil
	})
	intent("text.align", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Align   string   `json:"align"`
	}) (edit.Command, error) {
		var list []map[string]any
		for _, l := range s.layers(m, c.Threads) {
			if l.Kind != doc.TextKind {
				continue
			}
			// The lines move inside the box; the box stays. Only the origin changes for a text that grows.
			patch := map[string]any{"text": map[string]any{"align": c.Align}}
			if !l.Text.Wrap {
				box, _ := s.shown.Box(s.sceneIndex(m), l.ID)
				to := map[string]float64{doc.Left: box.Min.X, doc.Centre: box.Centre().X, doc.Right: box.Max.X}[c.Align]
				by := geom.Rotate(l.Place.Turn).ApplyVector(geom.Point{X: to})
				patch["place"] = map[string]any{"x": l.Place.X + by.X, "y": l.Place.Y + by.Y}
			}
			list = append(list, map[string]any{"id": l.ID, "patch": patch})
		}
		return command("layer.set", map[string]any{"set": list}), nil
	})
	intent("paste", func(s *Session, m Moment, c *struct {
		Layers []*doc.Layer `json:"layers"`
	}) (edit.Command, error) {
		sc := s.scene(m)
		d := 0.0
		for _, l := range c.Layers {
			if l != nil && sc.Thread(l.Thread) != nil {
				d = math.Round(float64(s.doc.Film.Width) / 60)
			}
		}
		return command("layer.paste", map[string]any{"scene": sc.ID, "layers": c.Layers, "seed": s.id(), "dx": d, "dy": d}), nil
	})
}

// place returns the commands that put a layer's box where typed numbers say. Groups and texts are scaled, keeping proportions.
func (s *Session) place(m Moment, l *doc.Layer, x, y, w, h, turn *float64) []edit.Command {
	var out []edit.Command
	i := s.sceneIndex(m)
	box, pivot := s.shown.Box(i, l.ID)
	rest := s.shown.RestMatrix(i, l.ID)
	at := geom.Point{X: l.Place.X, Y: l.Place.Y}
	mid := rest.Apply(box.Centre())
	if x != nil {
		at.X += *x - mid.X
	}
	if y != nil {
		at.Y += *y - mid.Y
	}
	if turn != nil {
		by := geom.Rotate(l.Place.Turn).ApplyVector(pivot).Sub(geom.Rotate(*turn).ApplyVector(pivot))
		at = at.Add(by)
		out = append(out, setPlaces([]map[string]any{placeOf(l.ID, map[string]any{"x": at.X, "y": at.Y, "turn": *turn})}))
	}
	kx, ky := 1.0, 1.0
	if w != nil && box.W() > 0 {
		kx = math.Max(*w, 1) / box.W()
	}
	if h != nil && box.H() > 0 {
		ky = math.Max(*h, 1) / box.H()
	}
	if proportional(l) {
		if w == nil {
			kx = ky
		}
		ky = kx
	}
	if kx != 1 || ky != 1 {
		// The middle stays where it is.
		c := box.Centre()
		by := rest.ApplyVector(c.Sub(geom.Point{X: c.X * kx, Y: c.Y * ky}))
		out = append(out, command("layer.scale", map[string]any{"id": l.ID, "kx": kx, "ky": ky, "x": at.X + by.X, "y": at.Y + by.Y}))
	} else if (x != nil || y != nil) && turn == nil {
		out = append(out, setPlaces([]map[string]any{placeOf(l.ID, map[string]any{"x": at.X, "y": at.Y})}))
	}
	return out
}

func extension(name string) string {
	if i := strings.LastIndexByte(name, '.'); i >= 0 {
		return name[i:]
	}
	return ""
}

// reorder moves layers of one parent to the front or back, or past one neighbour.
func (s *Session) reorder(m Moment, chosen []string, to string) (edit.Command, error) {
	sc := s.scene(m)
	list := outermost(sc, s.layers(m, chosen))
	if len(list) == 0 {
		return nil, nil
	}
	_, parent := sc.Layer(list[0].ID)
	all := sc.Layers
	if parent != nil {
		all = parent.Children
	}
	var moving, staying []*doc.Layer
	first := -1
	for i, l := range all {
		if slices.Contains(list, l) {
			moving = append(moving, l)
			if first < 0 {
				first = i
			}
		} else {
			staying = append(staying, l)
		}
	}
	at := first
	switch to {
	case "front":
		at = len(staying)
	case "back":
		at = 0
	case "up":
		at = min(first+1, len(staying))
	case "down":
		at = max(first-1, 0)
	}
	name := ""
	if parent != nil {
		name = parent.ID
	}
	return command("layer.order", map[string]any{"ids": ids(moving), "parent": name, "index": at}), nil
}

// drop moves layers to where a row was dropped: above (in front of), below (behind) or inside the target row.
func (s *Session) drop(m Moment, chosen []string, target, where string) (edit.Command, error) {
	sc := s.scene(m)
	t := sc.Thread(target)
	list := outermost(sc, s.layers(m, chosen))
	if t == nil || len(list) == 0 || slices.Contains(list, t) {
		return nil, nil
	}
	_, parent := sc.Layer(t.ID)
	siblings := sc.Layers
	if where == "inside" && t.Kind == doc.Group {
		parent, siblings = t, t.Children
	} else if parent != nil {
		siblings = parent.Children
	}
	at := 0
	if where == "inside" {
		at = len(siblings)
	}
	var moving []*doc.Layer
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		if slices.Contains(list, l) {
			moving = append(moving, l)
		}
		return true
	})
	if where != "inside" {
		for _, l := range siblings {
			if l == t {
				break
			}
			if !slices.Contains(moving, l) {
				at++
			}
		}
		if where == "above" {
			at++
		}
	}
	name := ""
	if parent != nil {
		name = parent.ID
	}
	return command("layer.order", map[string]any{"ids": ids(moving), "parent": name, "index": at}), nil
}

// Copy returns the chosen layers as they are pasted: with places on the page, back to front.
func (s *Session) Copy(m Moment, chosen []string) []*doc.Layer {
	sc := s.scene(m)
	i := s.sceneIndex(m)
	list := outermost(sc, s.layers(m, chosen))
	out := []*doc.Layer{}
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		if slices.Contains(list, l) {
			k := l.Clone()
			up := s.shown.Ancestry(i, l.ID)
			p := up.Apply(geom.Point{X: k.Place.X, Y: k.Place.Y})
			k.Place.X, k.Place.Y = p.X, p.Y
			k.Place.Turn += geom.AngleOf(up)
			out = append(out, k)
		}
		return true
	})
	return out
}

// begin returns where on the scene's clock a new move starts: at the playhead inside the scene, else at 0.
func (s *Session) begin(m Moment) int64 {
	if m.Rest {
		return 0
	}
	w := s.shown.Order.At(instant(m.Time))
	at := int64(math.Round(w.Clock.Ms()))
	if w.Into || at < 0 || at >= s.shown.Timing(w.Scene).Stay-doc.MinDuration {
		return 0
	}
	return at
}

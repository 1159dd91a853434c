package motion

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"

	"capstan/core/doc"
)

// Easing maps directed progress to eased progress. Both may leave 0..1.
type Easing func(x float64) float64

func init() {
	doc.CheckEasing = func(s string) error { _, err := ParseEasing(s); return err }
}

// Linear is the identity.
func Linear(x float64) float64 { return x }

// keywords are the named curves of CSS Easing Functions Level 2.
var keywords = map[string]string{
	"ease": "cubic-bezier(0.25,0.1,0.25,1)", "ease-in": "cubic-bezier(0.42,0,1,1)",
	"ease-out": "cubic-bezier(0,0,0.58,1)", "ease-in-out": "cubic-bezier(0.42,0,0.58,1)",
	"step-start": "steps(1,jump-start)", "step-end": "steps(1,jump-end)",
}

// ParseEasing reads an easing in the syntax of CSS Easing Functions Level 2: linear, ease, ease-in,
// ease-out, ease-in-out, step-start, step-end, cubic-bezier(), steps() and linear().
func ParseEasing(s string) (Easing, error) {
	s = strings.ToLower(strings.TrimSpace(s))
	if s == "linear" {
		return Linear, nil
	}
	if k, ok := keywords[s]; ok {
		s = k
	}
	name, rest, ok := strings.Cut(s, "(")
	if !ok || !strings.HasSuffix(rest, ")") {
		return nil, fmt.Errorf("%q is not known", s)
	}
	args := strings.Split(strings.TrimSuffix(rest, ")"), ",")
	for i := range args {
		args[i] = strings.TrimSpace(args[i])
	}
	switch name {
	case "cubic-bezier":
		return parseBezier(args)
	case "steps":
		return parseSteps(args)
	case "linear":
		return parseLinear(args)
	}
	return nil, fmt.Errorf("%q is not known", name)
}

func number(s string) (float64, error) {
	v, err := strconv.ParseFloat(s, 64)
	if err != nil || math.IsInf(v, 0) || math.IsNaN(v) || math.Abs(v) > 1e4 {
		return 0, fmt.Errorf("%q is no number", s)
	}
	return v, nil
}

func parseBezier(args []string) (Easing, error) {
	if len(args) != 4 {
		return nil, errors.New("cubic-bezier takes four numbers")
	}
	var v [4]float64
	for i, a := range args {
		n, err := number(a)
		if err != nil {
			return nil, err
		}
		v[i] = n
	}
	if v[0] < 0 || v[0] > 1 || v[2] < 0 || v[2] > 1 {
		return nil, errors.New("the first and third number of cubic-bezier lie in 0..1")
	}
	return Bezier(v[0], v[1], v[2], v[3]), nil
}

// Bezier returns the cubic-bezier easing with the given control points; x1 and x2 lie in 0..1. Outside 0..1
// it goes on along the tangent of that end, as CSS says. The curve is solved to 1e-9 in x.
func Bezier(x1, y1, x2, y2 float64) Easing {
	at := func(a, b, t float64) float64 { u := 1 - t; return 3*u*u*t*a + 3*u*t*t*b + t*t*t }
	slope := func(a, b, t float64) float64 {
		u := 1 - t
		return 3*u*u*a + 6*u*t*(b-a) + 3*t*t*(1-b)
	}
	start, end := 0.0, 0.0
	switch {
	case x1 > 0:
		start = y1 / x1
	case y1 == 0 && x2 > 0:
		start = y2 / x2
	case y1 == 0 && y2 == 0:
		start = 1
	}
	switch {
	case x2 < 1:
		end = (1 - y2) / (1 - x2)
	case y2 == 1 && x1 < 1:
		end = (1 - y1) / (1 - x1)
	case y2 == 1 && y1 == 1:
		end = 1
	}
	return func(x float64) float64 {
		if x < 0 {
			return start * x
		}
		if x > 1 {
			return 1 + end*(x-1)
		}
		if x == 0 || x == 1 {
			return x
		}
		lo, hi, t := 0.0, 1.0, x
		for i := 0; i < 60; i++ {
			e := at(x1, x2, t) - x
			if math.Abs(e) < 1e-10 {
				break
			}
			if e > 0 {
				hi = t
			} else {
				lo = t
			}
			d := slope(x1, x2, t)
			if next := t - e/d; d > 1e-6 && next > lo && next < hi {
				t = next
			} else {
				t = (lo + hi) / 2
			}
		}
		return at(y1, y2, t)
	}
}

func parseSteps(args []string) (Easing, error) {
	n, jumps, shift, err := readSteps(args)
	if err != nil {
		return nil, err
	}
	return stepping(n, jumps, shift, false), nil
}

// readSteps returns the number of steps, how many jumps are seen, and how many of these are taken at the start.
func readSteps(args []string) (n, jumps, shift int, err error) {
	jump := "jump-end"
	if len(args) == 2 {
		jump = args[1]
	} else if len(args) != 1 {
		return 0, 0, 0, errors.New("steps takes a number and where it jumps")
	}
	if n, err = strconv.Atoi(args[0]); err != nil || n < 1 || n > 10000 {
		return 0, 0, 0, errors.New("steps takes a whole number from 1")
	}
	jumps = n
	switch jump {
	case "jump-end", "end":
	case "jump-start", "start":
		shift = 1
	case "jump-both":
		jumps, shift = n+1, 1
	case "jump-none":
		if jumps = n - 1; jumps < 1 {
			return 0, 0, 0, errors.New("steps with jump-none takes 2 or more")
		}
	default:
		return 0, 0, 0, fmt.Errorf("steps does not know %q", jump)
	}
	return n, jumps, shift, nil
}

// stepping is a function of n steps, of which jumps are seen; before is the before flag of CSS Easing 2: what stands on a step has not taken it.
func stepping(n, jumps, shift int, before bool) Easing {
	return func(x float64) float64 {
		step := math.Floor(x*float64(n)) + float64(shift)
		if before && x*float64(n) == math.Floor(x*float64(n)) {
			step--
		}
		if x >= 0 && step < 0 {
			step = 0
		}
		if x <= 1 && step > float64(jumps) {
			step = float64(jumps)
		}
		return step / float64(jumps)
	}
}

// beforeEasing is an easing as it is before its move begins, or after one that ends going back: of steps that which has not taken the step it
// stands on.
func beforeEasing(s, fallback string) Easing {
	if s == "" {
		s = fallback
	}
	if k, ok := keywords[s]; ok {
		s = k
	}
	if args, ok := strings.CutPrefix(strings.ToLower(strings.ReplaceAll(s, " ", "")), "steps("); ok {
		parts := strings.Split(strings.TrimSuffix(args, ")"), ",")
		if n, jumps, shift, err := readSteps(parts); err == nil {
			return stepping(n, jumps, shift, true)
		}
	}
	return easingOf(s, fallback)
}

func parseLinear(args []string) (Easing, error) {
	type stop struct {
		y, x float64
		set  bool
	}
	var stops []stop
	for _, a := range args {
		f := strings.Fields(a)
		if len(f) < 1 || len(f) > 3 {
			return nil, fmt.Errorf("linear cannot read %q", a)
		}
		var y float64
		var xs []float64
		seen := false
		for _, w := range f {
			if strings.HasSuffix(w, "%") {
				v, err := number(strings.TrimSuffix(w, "%"))
				if err != nil {
					return nil, err
				}
				xs = append(xs, v/100)
			} else if v, err := number(w); err != nil || seen {
				return nil, fmt.Errorf("linear cannot read %q", a)
			} else {
				y, seen = v, true
			}
		}
		if !seen || len(xs) > 2 {
			return nil, fmt.Errorf("linear cannot read %q", a)
		}
		if len(xs) == 0 {
			stops = append(stops, stop{y: y})
		}
		for _, x := range xs {
			stops = append(stops, stop{y, x, true})
		}
	}
	if len(stops) < 2 {
		return nil, errors.New("linear takes two values or more")
	}
	last := len(stops) - 1
	if !stops[0].set {
		stops[0].set = true
	}
	if !stops[last].set {
		stops[last] = stop{stops[last].y, 1, true}
	}
	high := stops[0].x
	for i := range stops {
		if stops[i].set {
			high = math.Max(high, stops[i].x)
			stops[i].x = high
		}
	}
	for i := 0; i < last; i++ {
		j := i + 1
		for !stops[j].set {
			j++
		}
		for k := i + 1; k < j; k++ {
			stops[k].x = stops[i].x + (stops[j].x-stops[i].x)*float64(k-i)/float64(j-i)
			stops[k].set = true
		}
	}
	return func(x float64) float64 {
		i := 0
		for k := range stops {
			if stops[k].x <= x {
				i = k
			}
		}
		if i == last {
			i--
		}
		a, b := stops[i], stops[i+1]
		if a.x == b.x {
			return b.y
		}
		return a.y + (b.y-a.y)*(x-a.x)/(b.x-a.x)
	}, nil
}

// PagesEase is the easing of a transition that says none.
const PagesEase = "ease-in-out"

// DefaultEasing names the easing a move has when it says none (docs/motion.md, Defaults).
func DefaultEasing(m *doc.Move) string {
	if e := m.Does(); e != nil && m.Kind != doc.Loop && e.Easing != "" {
		return e.Easing
	}
	switch m.Kind {
	case doc.Entrance:
		return "ease-out"
	case doc.Exit:
		return "ease-in"
	case doc.MotionPath:
		if m.Lasts == "" {
			return "ease-in-out"
		}
	case doc.Change:
		return "ease-in-out"
	}
	return "linear"
}

// easingOf returns a validated easing; an empty one is the default.
func easingOf(s, fallback string) Easing {
	if s == "" {
		s = fallback
	}
	e, err := ParseEasing(s)
	if err != nil {
		// Validation has refused it before a film is compiled.
		return Linear
	}
	return e
}

// Handles returns the two control points x1 y1 x2 y2 of an easing that is one cubic Bezier curve; false for others.
func Handles(s string) (v [4]float64, ok bool) {
	s = strings.ToLower(strings.TrimSpace(s))
	if s == "linear" {
		return [4]float64{1. / 3, 1. / 3, 2. / 3, 2. / 3}, true
	}
	if k := keywords[s]; k != "" {
		s = k
	}
	inner, ok := strings.CutPrefix(s, "cubic-bezier(")
	args := strings.Split(strings.TrimSuffix(inner, ")"), ",")
	if !ok || len(args) != 4 {
		return v, false
	}
	for i, a := range args {
		n, err := number(strings.TrimSpace(a))
		if err != nil {
			return v, false
		}
		v[i] = n
	}
	return v, true
}

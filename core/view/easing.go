package view

import "capstan/core/motion"

// EasingCurve is an easing as it is drawn.
type EasingCurve struct {
	At      []float64   `json:"at"`      // its progress at equal steps of 0..1
	Handles *[4]float64 `json:"handles"` // x1 y1 x2 y2 of its control points; null where it is no single curve
}

// CurveOf draws an easing as CSS writes it; nil where that cannot be read.
func CurveOf(css string) *EasingCurve {
	ease, err := motion.ParseEasing(css)
	if err != nil {
		return nil
	}
	const steps = 64
	v := &EasingCurve{}
	for i := range steps + 1 {
		v.At = append(v.At, ease(float64(i)/steps))
	}
	if h, ok := motion.Handles(css); ok {
		v.Handles = &h
	}
	return v
}

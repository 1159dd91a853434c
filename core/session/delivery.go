package session

import (
	"capstan/core/delivery"
	"capstan/core/doc"
)

// Delivery is what a file of the whole film would be.
type Delivery struct {
	Width   int    `json:"width"`
	Height  int    `json:"height"`
	Frames  int64  `json:"frames"`
	Rest    int64  `json:"rest"`    // ms its last frame rests
	Asked   bool   `json:"asked"`   // the document says so
	Pass    int64  `json:"pass"`    // ms from one begin to the next, with the rest
	Refused string `json:"refused"` // why there can be none, in words
}

// DeliveryView returns what a file of a format would be at a height, or else a width, and a rate.
func (s *Session) DeliveryView(format string, width, height int, rate doc.Rate, once bool) Delivery {
	p, err := delivery.Of(s.Film, delivery.Ask{Format: format, Width: width, Height: height, Rate: rate, Once: once})
	v := Delivery{Width: p.Width, Height: p.Height, Rest: p.EndPause, Asked: s.Doc.Film.EndPause != nil, Pass: s.Film.Order.Length + p.EndPause}
	if err != nil {
		v.Refused = err.Error()
		return v
	}
	v.Frames = p.Frames(s.Film)
	return v
}

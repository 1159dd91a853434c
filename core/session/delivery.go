package session

import "capstan/core/delivery"

// Delivery is what a file of the whole film would be.
type Delivery struct {
	Width   int    `json:"width"`
	Height  int    `json:"height"`
	Frames  int64  `json:"frames"`
	Rest    int64  `json:"rest"`    // ms its last frame rests
	Asked   bool   `json:"asked"`   // the document says so
	Pass    int64  `json:"pass"`    // ms from one begin to the next, with the rest
	Refused string `json:"refused"` // why there can be none, in words
	Length  int64  `json:"length"`  // ms of the film that it shows
	RateNum int64  `json:"rateNum"` // frames a second
	RateDen int64  `json:"rateDen"`
	Even    bool   `json:"even"` // it lasts a whole number of hundredths of a second a frame: none is longer than another
}

// DeliveryView returns what a file would be.
func (s *Session) DeliveryView(ask delivery.Ask) Delivery {
	p, err := delivery.Of(s.Film, ask)
	v := Delivery{Width: p.Width, Height: p.Height, Rest: p.EndPause, Asked: ask.Pause != nil, RateNum: p.RateNum, RateDen: p.RateDen}
	v.Length = p.To - p.From
	if p.To == 0 {
		v.Length = s.Film.Order.Length - p.From
	}
	v.Pass = v.Length + p.EndPause
	if err != nil {
		v.Refused = err.Error()
		return v
	}
	v.Frames = p.Frames(s.Film)
	v.Even = 100*p.RateDen%p.RateNum == 0
	return v
}

package session

import "capstan/core/delivery"

// Delivery is what a file of the whole film would be.
type Delivery struct {
	Width   int      `json:"width"`
	Height  int      `json:"height"`
	From    int64    `json:"from"` // ms of the film; of a still, what it shows
	Frames  int64    `json:"frames"`
	Rest    int64    `json:"rest"`    // ms its last frame rests
	Asked   bool     `json:"asked"`   // the document says so
	Pass    int64    `json:"pass"`    // ms from one begin to the next, with the rest
	Refused string   `json:"refused"` // why there can be none, in words
	Length  int64    `json:"length"`  // ms that it lasts, without its rest
	Sampled int64    `json:"sampled"` // frames that the rate makes of the film, before any is timed by hand
	Least   int64    `json:"least"`   // ms that a frame stays at least
	RateNum int64    `json:"rateNum"` // frames a second
	RateDen int64    `json:"rateDen"`
	Pattern string   `json:"pattern"` // by which it is named where nothing else is asked for
	Limits  []string `json:"limits"`  // what it cannot have, in words
	Says    string   `json:"says"`    // what is said of it for people who do not see it, where nothing else is
}

// DeliveryCells returns count frames that a file could show, from one on; none where there can be no file.
func (s *Session) DeliveryCells(ask delivery.Ask, from, count int64) []delivery.Cell {
	p, err := delivery.Of(s.Film, ask)
	if err != nil {
		return []delivery.Cell{}
	}
	return p.Cells(s.Film, from, count)
}

// DeliveryView returns what a file would be.
func (s *Session) DeliveryView(ask delivery.Ask) Delivery {
	p, err := delivery.Of(s.Film, ask)
	v := Delivery{Width: p.Width, Height: p.Height, From: p.From, Rest: p.EndPause, Asked: ask.Pause != nil, Limits: []string{}, RateNum: p.RateNum, RateDen: p.RateDen}
	v.Pattern = p.Pattern()
	if err != nil {
		v.Refused = err.Error()
		return v
	}
	shows := p.Sequence(s.Film)
	v.Length, v.Frames, v.Sampled, v.Least = shows.Length(), shows.Len(), p.Frames(s.Film), max(1, delivery.Formats[p.Format].Least)
	v.Pass = v.Length + p.EndPause
	v.Limits, v.Says = p.Limits(s.Film, ask), p.Describe(s.Film)
	return v
}

// Markup is HTML that shows a file of a name in a web page; empty where browsers do not.
func (s *Session) Markup(ask delivery.Ask, name string) string {
	p, err := delivery.Of(s.Film, ask)
	if err != nil {
		return ""
	}
	return p.Markup(s.Film, name)
}

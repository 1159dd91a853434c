package moves

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var alongAsked = intent.Table{
	// A path goes along the outline of another layer, and follows it when that is edited; without a thread it keeps the line it has.
	"path.along": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move   string `json:"move"`
		Thread string `json:"thread"`
	}) (edit.Command, error) {
		m, l, i := s.Move(c.Move)
		if m == nil || m.Path == nil {
			return nil, words.New("path.gone")
		}
		if c.Thread == "" && m.Path.Along == "" {
			return nil, nil
		}
		asked := m.Clone()
		if c.Thread != "" {
			asked.Path.Along = c.Thread
		}
		line := s.Film.AlongLine(i, l.ID, asked)
		patch := edit.Fields{"along": nil}
		if c.Thread != "" {
			if line == nil {
				return nil, words.New("path.lineless")
			}
			patch["along"] = c.Thread
		}
		if line != nil { // the line it has, should that layer go
			box, _ := s.Film.Box(i, l.ID)
			from := s.Film.RestMatrix(i, l.ID).Apply(box.Centre())
			own := &geom.Path{}
			own.Append(line, geom.Translate(from.Mul(-1)))
			patch["d"], patch["rest"], patch["share"] = own.Data(), doc.Departs, nil
		}
		return edit.SetMove(c.Move, edit.Fields{"path": patch}), nil
	}),
}

package doc

// PictureUse shows an imported picture, or the part of it given by Crop.
type PictureUse struct {
	Media string      `json:"media"`
	Crop  *[4]float64 `json:"crop,omitzero"` // left, top, right, bottom in shares 0..1
}

var pictureKind = &Kind{
	Name: Picture, Words: "Picture", Keeps: true, Grounds: true, Cornered: true,
	mayBeMade: func(string) bool { return true },
	check: func(c *checker, at string, l *Layer) bool {
		if l.Picture == nil {
			c.fail(at+".picture", "is missing")
			return false
		}
		c.known(at+".picture.media", l.Picture.Media)
		if v := l.Picture.Crop; v != nil {
			for k := range v {
				c.number(at+".picture.crop", v[k], 0, 1)
			}
			if c.err == nil && (v[2] <= v[0] || v[3] <= v[1]) {
				c.fail(at+".picture.crop", "leaves nothing of the picture")
			}
		}
		return true
	},
	held: holds(func(l *Layer) **PictureUse { return &l.Picture }, func(v *PictureUse) { v.Crop = copied(v.Crop) },
		func(a, b *PictureUse) bool { return a.Media == b.Media && same(a.Crop, b.Crop) }),
}

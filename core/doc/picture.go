package doc

import "strings"

// PictureUse shows an imported picture, or the part of it given by Crop.
type PictureUse struct {
	Media string  `json:"media"`
	Crop  *Crop   `json:"crop,omitzero"`
	Turn  float64 `json:"turn,omitzero"` // degrees clockwise by which it is turned in its frame, about the middle of the part; -360..360
	Cut   *Cutout `json:"cut,omitzero"`  // what is lifted off its ground
}

// Shows names what is seen of the file: its hash, and of a cut-out, after a dash, that of the mask.
func (u *PictureUse) Shows() string {
	if v := u.Cut; v != nil && v.Of == u.Media && v.Mask != "" {
		return u.Media + "-" + v.Mask
	}
	return u.Media
}

// Shown is the picture and the mask that a name is of; without a dash there is no mask.
func Shown(name string) (hash, mask string) {
	hash, mask, _ = strings.Cut(name, "-")
	return hash, mask
}

// Crop is a part of a picture: left, top, right, bottom in shares 0..1 of it.
type Crop [4]float64

// leastCrop is the smallest part of a picture, each way, that there can be: of a smaller one all would be beyond measure.
const leastCrop = 1e-6

// Uncropped is all of a picture.
var Uncropped = Crop{0, 0, 1, 1}

// Cropped is the part that is shown.
func (u *PictureUse) Cropped() Crop {
	if u.Crop == nil {
		return Uncropped
	}
	return *u.Crop
}

// Equal reports whether two show the same.
func (u *PictureUse) Equal(o *PictureUse) bool {
	if u == nil || o == nil {
		return u == o
	}
	return u.Media == o.Media && u.Turn == o.Turn && same(u.Crop, o.Crop) && u.Cut.Equal(o.Cut)
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
		c.number(at+".picture.turn", l.Picture.Turn, -360, 360)
		if v := l.Picture.Crop; v != nil {
			for k := range v {
				c.number(at+".picture.crop", v[k], 0, 1)
			}
			if c.err == nil && (v[2]-v[0] < leastCrop || v[3]-v[1] < leastCrop) {
				c.fail(at+".picture.crop", "leaves nothing of the picture")
			}
		}
		if v := l.Picture.Cut; v != nil {
			c.cut(at+".picture.cut", v)
		}
		return true
	},
	held: holds(func(l *Layer) **PictureUse { return &l.Picture }, func(v *PictureUse) { v.Crop, v.Cut = copied(v.Crop), v.Cut.clone() },
		(*PictureUse).Equal),
}

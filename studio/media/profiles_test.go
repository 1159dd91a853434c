package media_test

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"fmt"
	"hash/crc32"
	"image"
	"image/color"
	"math"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"capstan/studio/media"

	"github.com/lucasb-eyer/go-colorful"
)

type xy [2]float64

func (c xy) xyz() [3]float64 { return [3]float64{c[0] / c[1], 1, (1 - c[0] - c[1]) / c[1]} }

type mat [3][3]float64

func (m mat) of(v [3]float64) (out [3]float64) {
	for i := range 3 {
		for k := range 3 {
			out[i] += m[i][k] * v[k]
		}
	}
	return
}

func (m mat) times(n mat) (out mat) {
	for k := range 3 {
		c := m.of([3]float64{n[0][k], n[1][k], n[2][k]})
		for i := range 3 {
			out[i][k] = c[i]
		}
	}
	return
}

func (m mat) inverse() (out mat) {
	d := 0.0
	for i := range 3 {
		for k := range 3 {
			a, b := (i+1)%3, (i+2)%3
			c, e := (k+1)%3, (k+2)%3
			out[k][i] = m[a][c]*m[b][e] - m[a][e]*m[b][c]
		}
	}
	for k := range 3 {
		d += m[0][k] * out[k][0]
	}
	for i := range 3 {
		for k := range 3 {
			out[i][k] /= d
		}
	}
	return
}

var (
	d50      = [3]float64{0.9642, 1, 0.8249}
	bradford = mat{{0.8951, 0.2664, -0.1614}, {-0.7502, 1.7135, 0.0367}, {0.0389, -0.0685, 1.0296}}
)

// profile is a display profile of three primaries, a white and a curve (ICC.1:2010, 8.3.3: matrix and tone curves), adapted to D50 by Bradford.
func profile(primaries [3]xy, white xy, gamma float64) []byte {
	var m mat
	for k, p := range primaries {
		v := p.xyz()
		for i := range 3 {
			m[i][k] = v[i]
		}
	}
	w := white.xyz()
	s := m.inverse().of(w)
	for i := range 3 {
		for k := range 3 {
			m[i][k] *= s[k]
		}
	}
	from, to := bradford.of(w), bradford.of(d50)
	adapt := bradford.inverse().times(mat{{to[0] / from[0]}, {0, to[1] / from[1]}, {0, 0, to[2] / from[2]}}).times(bradford)
	m = adapt.times(m)
	fixed := func(v float64) []byte { return binary.BigEndian.AppendUint32(nil, uint32(int32(math.Round(v*65536)))) }
	xyz := func(x, y, z float64) []byte {
		return bytes.Join([][]byte{[]byte("XYZ \x00\x00\x00\x00"), fixed(x), fixed(y), fixed(z)}, nil)
	}
	curve := append([]byte("curv\x00\x00\x00\x00\x00\x00\x00\x01"), binary.BigEndian.AppendUint16(nil, uint16(math.Round(gamma*256)))...)
	curve = append(curve, 0, 0)
	desc := append([]byte("desc\x00\x00\x00\x00\x00\x00\x00\x05test\x00"), make([]byte, 79)...)
	tags := []struct {
		name string
		data []byte
	}{
		{"desc", desc}, {"cprt", []byte("text\x00\x00\x00\x00none\x00\x00\x00\x00")}, {"wtpt", xyz(d50[0], d50[1], d50[2])},
		{"rXYZ", xyz(m[0][0], m[1][0], m[2][0])}, {"gXYZ", xyz(m[0][1], m[1][1], m[2][1])}, {"bXYZ", xyz(m[0][2], m[1][2], m[2][2])},
		{"rTRC", curve}, {"gTRC", curve}, {"bTRC", curve},
	}
	at := 128 + 4 + 12*len(tags)
	var table, data []byte
	for _, t := range tags {
		for len(t.data)%4 != 0 {
			t.data = append(t.data, 0)
		}
		table = append(table, t.name...)
		table = binary.BigEndian.AppendUint32(table, uint32(at))
		table = binary.BigEndian.AppendUint32(table, uint32(len(t.data)))
		data, at = append(data, t.data...), at+len(t.data)
	}
	head := make([]byte, 128)
	binary.BigEndian.PutUint32(head, uint32(at))
	copy(head[8:], "\x02\x40\x00\x00mntrRGB XYZ ")
	copy(head[24:], []byte{7, 234, 0, 11, 0, 30})
	copy(head[36:], "acsp")
	copy(head[68:], bytes.Join([][]byte{fixed(d50[0]), fixed(d50[1]), fixed(d50[2])}, nil))
	return bytes.Join([][]byte{head, binary.BigEndian.AppendUint32(nil, uint32(len(tags))), table, data}, nil)
}

// profiled is a PNG with a profile in it.
func profiled(t *testing.T, m image.Image, icc []byte) []byte {
	raw := encode(t, m.(*image.NRGBA))
	var z bytes.Buffer
	w := zlib.NewWriter(&z)
	_, _ = w.Write(icc)
	_ = w.Close()
	body := append([]byte("iCCPtest\x00\x00"), z.Bytes()...)
	chunk := binary.BigEndian.AppendUint32(nil, uint32(len(body)-4))
	chunk = binary.BigEndian.AppendUint32(append(chunk, body...), crc32.ChecksumIEEE(body))
	return bytes.Join([][]byte{raw[:33], chunk, raw[33:]}, nil) // after IHDR
}

// Pictures with wide, linear and swapped profiles come out as littlecms has them in sRGB (its transicc, relative colorimetric), within a CIEDE2000 of
// 1.5; left as they are most would not. One with a broken profile counts as sRGB.
func TestProfilesAreAppliedAsLittlecmsDoes(t *testing.T) {
	srgb, d65 := [3]xy{{0.64, 0.33}, {0.30, 0.60}, {0.15, 0.06}}, xy{0.3127, 0.3290}
	p3 := [3]xy{{0.680, 0.320}, {0.265, 0.690}, {0.150, 0.060}}
	wide := [3]xy{{0.64, 0.33}, {0.21, 0.71}, {0.15, 0.06}}
	huge := [3]xy{{0.7347, 0.2653}, {0.1596, 0.8404}, {0.0366, 0.0001}}
	film := [3]xy{{0.708, 0.292}, {0.170, 0.797}, {0.131, 0.046}}
	swapped := [3]xy{srgb[2], srgb[0], srgb[1]}
	f, dir := media.NewFolder(t.TempDir()), t.TempDir()
	var asked []string
	m := image.NewNRGBA(image.Rect(0, 0, 64, 1))
	for i := range 64 {
		c := color.NRGBA{uint8(i % 4 * 85), uint8(i / 4 % 4 * 85), uint8(i / 16 * 85), 255}
		m.SetNRGBA(i, 0, c)
		asked = append(asked, fmt.Sprintf("%d %d %d", c.R, c.G, c.B))
	}
	told := 0
	for i, c := range []struct {
		primaries [3]xy
		white     xy
		gamma     float64
	}{
		{p3, d65, 2.2}, {p3, xy{0.314, 0.351}, 2.6}, {wide, d65, 2.2}, {huge, xy{0.3457, 0.3585}, 1.8}, {film, d65, 2.4},
		{srgb, d65, 1}, {p3, d65, 1}, {film, d65, 1}, {swapped, d65, 2.2}, {srgb, xy{0.3457, 0.3585}, 2.2},
	} {
		icc := profile(c.primaries, c.white, c.gamma)
		path := filepath.Join(dir, fmt.Sprint(i, ".icc"))
		write(t, path, icc)
		hash, _, err := f.Take(bytes.NewReader(profiled(t, m, icc)), "x.png")
		if err != nil {
			t.Fatal(err)
		}
		got, err := f.Pixels(hash, 0)
		if err != nil {
			t.Fatal(err)
		}
		cmd := exec.Command("transicc", "-i"+path, "-o*sRGB", "-t1", "-s", "-n")
		cmd.Stdin = strings.NewReader(strings.Join(asked, "\n") + "\n")
		raw, err := cmd.Output()
		if err != nil {
			t.Fatal(err)
		}
		lines := strings.Split(strings.TrimSpace(string(raw)), "\n")
		worst, plain := 0.0, 0.0
		for k := range 64 {
			var r, g, b float64
			if _, err := fmt.Sscan(lines[k], &r, &g, &b); err != nil {
				t.Fatalf("%q: %v", lines[k], err)
			}
			theirs := colorful.Color{R: r / 255, G: g / 255, B: b / 255}
			own, _ := colorful.MakeColor(got.RGBAAt(k, 0))
			was, _ := colorful.MakeColor(m.NRGBAAt(k, 0))
			worst, plain = max(worst, 100*theirs.DistanceCIEDE2000(own)), max(plain, 100*theirs.DistanceCIEDE2000(was))
		}
		if worst > 1.5 {
			t.Errorf("profile %d: CIEDE2000 %.2f off", i, worst)
		}
		if plain > 1.5 {
			told++
		}
	}
	if told < 9 {
		t.Errorf("of ten pictures %d would have been told if they had been left as they are", told)
	}
	broken := profile(p3, d65, 2.2)
	copy(broken[36:], "????")
	hash, _, err := f.Take(bytes.NewReader(profiled(t, m, broken)), "x.png")
	if err != nil {
		t.Fatal(err)
	}
	if got, err := f.Pixels(hash, 0); err != nil || got.RGBAAt(6, 0) != (color.RGBA{170, 85, 0, 255}) {
		t.Errorf("with a broken profile a pixel is %v, %v", got.RGBAAt(6, 0), err)
	}
}

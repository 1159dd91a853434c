package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"net/http"
	"strings"
	"testing"
)

// A cut-out is worked out, stored, and seen; its ground is a picture of its own. What cannot be is refused in words, and a cut-out comes along in a bundle; one
// whose mask is damaged, or of another size, is refused, or told when it is shown.
func TestCutOutsAreMadeAndComeAlong(t *testing.T) {
	s := start(t)
	picture := func(w, h int) string {
		img := image.NewRGBA(image.Rect(0, 0, w, h))
		for y := range h {
			for x := range w {
				c := color.RGBA{60, 120, 190, 255}
				if (x-w/2)*(x-w/2)+(y-h/2)*(y-h/2) < h*h/9 {
					c = color.RGBA{uint8(200 + x%20), 80, 50, 255}
				}
				img.SetRGBA(x, y, c)
			}
		}
		var b bytes.Buffer
		if err := png.Encode(&b, img); err != nil {
			t.Fatal(err)
		}
		status, v := s.ask("POST", "/api/media?name=disc.png", b.Bytes())
		if status != http.StatusCreated {
			t.Fatal(v)
		}
		return v["hash"].(string)
	}
	seen := func(name string) image.Image {
		r, err := s.c.Get(s.url + "/api/media/" + name + "/0.png")
		if err != nil {
			t.Fatal(err)
		}
		defer r.Body.Close()
		if r.StatusCode != http.StatusOK {
			return nil
		}
		img, err := png.Decode(r.Body)
		if err != nil {
			t.Fatal(err)
		}
		return img
	}
	hash := picture(120, 90)
	status, v := s.ask("POST", "/api/media/"+hash+"/cutout", []byte(`{"propose":true}`))
	if status != http.StatusOK {
		t.Fatal(v)
	}
	cut := v["cut"].(map[string]any)
	mask := cut["mask"].(string)
	img := seen(hash + "-" + mask)
	_, _, _, middle := img.At(60, 45).RGBA()
	_, _, _, corner := img.At(3, 3).RGBA()
	if cut["ground"] != "ltrb" || middle != 0xffff || corner != 0 {
		t.Errorf("of a disc %v is ground; its middle is covered %#x, the corner %#x", cut["ground"], middle, corner)
	}
	status, v = s.ask("POST", "/api/media/"+hash+"/ground", []byte(`{"mask":"`+mask+`","name":"Behind"}`))
	if status != http.StatusCreated {
		t.Fatal(v)
	}
	if r, _, b, _ := seen(v["hash"].(string)).At(60, 45).RGBA(); r>>8 > 100 || b>>8 < 150 {
		t.Errorf("behind the disc there is %d %d", r>>8, b>>8)
	}
	for body, want := range map[string]string{
		`{"cut":{"strokes":[{"how":"bend","points":[[1,1]]}]}}`:            "document.invalid",
		`{"cut":{"strokes":[{"how":"keep","points":[]}]}}`:                 "document.invalid",
		`{"cut":{"strokes":[{"how":"rub","points":[[1,1]],"width":1e9}]}}`: "document.invalid",
		`{"cut":{"keys":[{"colour":"blue","at":[1,1]}]}}`:                  "document.invalid",
		`{"cut":{"ground":"up"}}`:                                          "document.invalid",
		`{"cut":{"spread":1e400}}`:                                         "request.none",
		`{"cut":{"strokes":[` + strings.Repeat(`{"how":"rub","points":[[1,1]]},`, 500) + `{"how":"rub","points":[[1,1]]}]}}`: "document.invalid",
	} {
		if status, v := s.ask("POST", "/api/media/"+hash+"/cutout", []byte(body)); status < 400 || status >= 500 || want == "document.invalid" && code(v) != want {
			t.Errorf("%.60s: %d %s", body, status, code(v))
		}
	}
	if status, v := s.ask("POST", "/api/media/"+strings.Repeat("7", 64)+"/cutout", []byte(`{}`)); status != http.StatusNotFound {
		t.Errorf("a picture that is not there: %d %v", status, v)
	}
	// Into a project and out of it, with its mask.
	id := s.project(t)
	scene := s.scene(id)
	raw, _ := json.Marshal(cut)
	facts := func(hash string, w, h int) string {
		return fmt.Sprintf(`{"op":"media.add","hash":%q,"media":{"name":"disc.png","type":"image/png","bytes":9,"width":%d,"height":%d,"opaque":true,"intake":4}}`, hash, w, h)
	}
	layer := fmt.Sprintf(`{"op":"layer.add","scene":%q,"layers":[{"id":"disc","thread":"disc","name":"Disc","kind":"picture","opacity":1,"fill":{"kind":"none"},"place":{"x":200,"y":150,"w":120,"h":90},"picture":{"media":%q}}]}`, scene, hash)
	set := fmt.Sprintf(`{"op":"picture.cut","ids":["disc"],"cut":%s,"media":{"name":"Mask","type":"image/png","bytes":9,"width":120,"height":90,"opaque":true,"intake":4}}`, raw)
	for i, c := range []string{facts(hash, 120, 90), layer, set} {
		s.command(id, i, c)
	}
	wrong := strings.Replace(set, `"width":120`, `"width":60`, 1)
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(`{"base":3,"window":"w","id":"c9","command":`+wrong+`}`)); status < 400 || status >= 500 {
		t.Errorf("a mask of another size: %d %v", status, v)
	}
	r, err := s.c.Get(s.url + "/api/projects/" + id + "/bundle")
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	b.ReadFrom(r.Body)
	r.Body.Close()
	other := start(t)
	status, v = other.ask("POST", "/api/bundles", b.Bytes())
	if status != http.StatusCreated {
		t.Fatal(v)
	}
	s = other
	if img := seen(hash + "-" + mask); img == nil {
		t.Error("the cut-out did not come along")
	}
	// A mask that is as large as the project says, but not as large as its picture.
	small := picture(60, 40)
	if seen(hash+"-"+small) != nil || seen(hash+"-"+strings.Repeat("a", 64)) != nil || seen(hash+"-x") != nil {
		t.Error("what is no mask of it is shown")
	}
}

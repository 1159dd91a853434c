package api_test

import (
	"fmt"
	"image/png"
	"math"
	"testing"
)

// Two layers are painted into a picture of two pixels a px, cut to what shows, clear around it.
func TestLayersArePaintedIntoAPicture(t *testing.T) {
	s := start(t)
	id := s.project(t)
	scene := s.scene(id)
	add := fmt.Sprintf(`{"base":0,"id":"a","window":"w","command":{"op":"layer.add","scene":%q,"layers":[
		{"id":"a","thread":"a","name":"a","kind":"rectangle","opacity":1,"fill":{"kind":"colour","colour":"#ff0000"},"place":{"x":100,"y":100,"w":60,"h":40}},
		{"id":"b","thread":"b","name":"b","kind":"ellipse","opacity":0.5,"fill":{"kind":"colour","colour":"#0000ff"},"place":{"x":150,"y":100,"w":40,"h":40}},
		{"id":"c","thread":"c","name":"c","kind":"ellipse","opacity":1,"hidden":true,"fill":{"kind":"colour","colour":"#0000ff"},"place":{"x":150,"y":300,"w":40,"h":40}}]}}`, scene)
	if status, v := s.ask("POST", "/api/projects/"+id+"/commands", []byte(add)); status != 200 {
		t.Fatalf("%d %v", status, v)
	}
	status, v := s.ask("POST", "/api/projects/"+id+"/pictures", []byte(fmt.Sprintf(`{"scene":%q,"layers":["a","b"]}`, scene)))
	if status != 201 {
		t.Fatalf("%d %v", status, v)
	}
	for i, want := range [4]float64{70, 80, 100, 40} {
		if got := v["box"].([]any)[i].(float64); math.Abs(got-want) > 0.5 {
			t.Errorf("box %v, want 70, 80, 100, 40", v["box"])
		}
	}
	r, err := s.c.Get(s.url + "/api/media/" + v["hash"].(string) + "/0.png")
	if err != nil {
		t.Fatal(err)
	}
	defer r.Body.Close()
	img, err := png.Decode(r.Body)
	if err != nil {
		t.Fatal(err)
	}
	if b := img.Bounds(); math.Abs(float64(b.Dx()-200)) > 1 || math.Abs(float64(b.Dy()-80)) > 1 {
		t.Errorf("%v pixels", b)
	}
	at := func(x, y int) [4]uint32 {
		r, g, b, a := img.At(x, y).RGBA()
		return [4]uint32{r >> 8, g >> 8, b >> 8, a >> 8}
	}
	if c := at(20, 40); c != [4]uint32{255, 0, 0, 255} {
		t.Errorf("the rectangle: %v", c)
	}
	if c := at(170, 40); c[3] < 126 || c[3] > 129 || c[0] != 0 {
		t.Errorf("the disc alone: %v", c)
	}
	if c := at(195, 3); c[3] != 0 {
		t.Errorf("beside the disc: %v", c)
	}
	for body, want := range map[string]string{
		fmt.Sprintf(`{"scene":%q,"layers":["c"]}`, scene):      "merge.nothing",
		fmt.Sprintf(`{"scene":%q,"layers":[]}`, scene):         "merge.nothing",
		fmt.Sprintf(`{"scene":%q,"layers":["nobody"]}`, scene): "merge.nothing",
		`{"scene":"nowhere","layers":["a"]}`:                   "scene.gone",
	} {
		if status, v := s.ask("POST", "/api/projects/"+id+"/pictures", []byte(body)); status != 422 || code(v) != want {
			t.Errorf("%s: %d %v", body, status, v)
		}
	}
}

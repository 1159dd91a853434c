// Command overlay writes the file that go build -overlay takes for the engine, to standard output. The engine draws outlines alone,
// but its font library also reads the sizes of PNG and JPEG glyphs; without these two decoders it is 43 KB smaller to send.
package main

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"strings"
)

func main() {
	if err := write(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func write() error {
	replace := map[string]string{}
	for _, kind := range []string{"jpeg", "png"} {
		stub, err := filepath.Abs(filepath.Join("scripts", "overlay", "stub", kind+".go.txt"))
		if err != nil {
			return err
		}
		files, err := filepath.Glob(filepath.Join(runtime.GOROOT(), "src", "image", kind, "*.go"))
		if err != nil || len(files) == 0 {
			return fmt.Errorf("the sources of image/%s are not in %s: %v", kind, runtime.GOROOT(), err)
		}
		for _, f := range files {
			switch {
			case strings.HasSuffix(f, "_test.go"):
			case filepath.Base(f) == "reader.go":
				replace[f] = stub
			default:
				replace[f] = "" // as if it were not there
			}
		}
	}
	return json.NewEncoder(os.Stdout).Encode(map[string]any{"Replace": replace})
}

package svgtest

import (
	"fmt"
	"io/fs"
	"path"
)

// Sets are icon sets among the page's development dependencies.
var Sets = []string{"bootstrap-icons/icons", "@mdi/svg/svg", "heroicons/24/*", "flag-icons/flags/1x1"}

// Files are so many files of each set, evenly among all of it, by their names, from the folder of the page's dependencies.
func Files(modules fs.FS, each int) (files map[string]string, err error) {
	files = map[string]string{}
	for _, set := range Sets {
		list, err := fs.Glob(modules, path.Join(set, "*.svg"))
		if err != nil || len(list) < each {
			return nil, fmt.Errorf("%s has %d files, not %d: %w", set, len(list), each, err)
		}
		for i := range each {
			name := list[i*len(list)/each]
			raw, err := fs.ReadFile(modules, name)
			if err != nil {
				return nil, err
			}
			files[name] = string(raw)
		}
	}
	return files, nil
}

package testdata

import (
	"io/fs"
	"path"
)

// Documents are all job documents here: the demo's, and those of jobs, signals, truth and arranged, by the
// names of their files.
func Documents() (map[string][]byte, error) {
	all := map[string][]byte{}
	for _, from := range []struct {
		files fs.FS
		glob  string
	}{{Demo, "demo/*.json"}, {Jobs, "jobs/*.json"}, {Signals, "signals/*.json"}, {Truth, "truth/*.json"},
		{Arranged, "arranged/*.json"}} {
		names, err := fs.Glob(from.files, from.glob)
		if err != nil {
			return nil, err
		}
		for _, name := range names {
			data, err := fs.ReadFile(from.files, name)
			if err != nil {
				return nil, err
			}
			all[path.Base(name)] = data
		}
	}
	return all, nil
}

module sectilis

go 1.26.0

require (
	codeberg.org/go-pdf/fpdf v0.12.0
	github.com/go-text/typesetting v0.3.3
	github.com/kovidgoyal/imaging v1.9.0
	github.com/rwcarlsen/goexif v0.0.0-20190401172101-9e8deecbddbd
	github.com/stretchr/testify v1.12.1
	golang.org/x/image v0.47.0
)

require (
	github.com/BurntSushi/toml v1.6.0 // indirect
	github.com/OpenPeeDeeP/depguard/v2 v2.3.0 // indirect
	github.com/gobwas/glob v1.0.0 // indirect
	github.com/kovidgoyal/go-parallel v1.1.1 // indirect
	github.com/kovidgoyal/go-shm v1.0.0 // indirect
	go.yaml.in/yaml/v3 v3.0.5 // indirect
	golang.org/x/exp/typeparams v0.0.0-20231108232855-2478ac86f678 // indirect
	golang.org/x/mod v0.42.0 // indirect
	golang.org/x/sync v0.24.0 // indirect
	golang.org/x/sys v0.49.0 // indirect
	golang.org/x/tools v0.52.0 // indirect
	honnef.co/go/tools v0.8.2 // indirect
)

tool (
	github.com/OpenPeeDeeP/depguard/v2/cmd/depguard
	honnef.co/go/tools/cmd/staticcheck
)

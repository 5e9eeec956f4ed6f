// Package arrows tests the lint rule that keeps imports pointing one way.
package arrows

import (
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// plant writes a module with this module's name and rule, in which one package
// imports another, and returns what the rule says of it.
func plant(t *testing.T, bin, from, imports string) (string, error) {
	t.Helper()
	dir := t.TempDir()
	rule, err := os.ReadFile("../../.depguard.json")
	require.NoError(t, err)
	write := func(name, text string) {
		require.NoError(t, os.MkdirAll(filepath.Dir(filepath.Join(dir, name)), 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(text), 0o600))
	}
	write(".depguard.json", string(rule))
	write("go.mod", "module sectilis\n\ngo 1.26\n")
	if imports != "net/http" {
		write(imports[len("sectilis/"):]+"/b.go", "package b\n")
	}
	write(from+"/a.go", "package a\n\nimport _ \""+imports+"\"\n")
	cmd := exec.Command(bin, "./...")
	cmd.Dir = dir
	out, err := cmd.CombinedOutput()
	return string(out), err
}

func TestTheRuleFindsPlantedViolations(t *testing.T) {
	bin := filepath.Join(t.TempDir(), "depguard")
	built, err := exec.Command("go", "build", "-o", bin, "github.com/OpenPeeDeeP/depguard/v2/cmd/depguard").CombinedOutput()
	require.NoError(t, err, string(built))
	for _, c := range []struct {
		from, imports, why string
	}{
		{"core/ground/geom", "sectilis/core/document/card", "are the ground"},
		{"core/ground/shape", "sectilis/core/document/card", "geom and measure alone"},
		{"core/document/card", "sectilis/core/document/scene", "stands on the ground alone"},
		{"core/document/mat", "sectilis/core/document/lettering", "knows no sibling"},
		{"core/document/scene", "sectilis/core/design/arrange", "scene stands on what is on card"},
		{"core/folding/fold", "sectilis/core/document/scene", "knows no sibling"},
		{"core/design/arrange", "sectilis/core/production/sheet", "design stands on the document"},
		{"core/production/nest", "sectilis/core/document/card", "stand on geom alone"},
		{"core/production/sheet", "sectilis/core/production/cut", "sheet stands on"},
		{"core/production/cut", "sectilis/core/design/arrange", "cut stands on sheet"},
		{"core/check", "sectilis/core/production/cut", "check stands on"},
		{"core/format/svg", "sectilis/core/design/arrange", "they know no design"},
		{"core/format/svg", "net/http", "no HTTP"},
		{"core/folding/fold", "sectilis/app", "the house above it"},
		{"app", "sectilis/store", "app declares what it needs"},
		{"server", "sectilis/device/cutter", "no device"},
		{"store", "sectilis/server", "implements what app declares"},
	} {
		out, err := plant(t, bin, c.from, c.imports)
		assert.Error(t, err, "%s must not import %s", c.from, c.imports)
		assert.Contains(t, out, c.why)
	}
	for from, imports := range map[string]string{
		"core/document/scene": "sectilis/core/document/mat", "core/design/arrange": "sectilis/core/design/opening", "app": "sectilis/core/document/card", "store": "sectilis/app",
	} {
		out, err := plant(t, bin, from, imports)
		assert.NoError(t, err, out)
	}
}

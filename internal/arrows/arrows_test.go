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
		{"core/geom", "sectilis/core/card", "ground floor"},
		{"core/card", "sectilis/core/scene", "stands on measure and geom alone"},
		{"core/shape", "sectilis/core/lettering", "knows no sibling"},
		{"core/format/svg", "net/http", "no HTTP"},
		{"core/fold", "sectilis/app", "the house above it"},
		{"app", "sectilis/store", "app declares what it needs"},
		{"server", "sectilis/device/cutter", "no device"},
		{"store", "sectilis/server", "implements what app declares"},
	} {
		out, err := plant(t, bin, c.from, c.imports)
		assert.Error(t, err, "%s must not import %s", c.from, c.imports)
		assert.Contains(t, out, c.why)
	}
	for from, imports := range map[string]string{"core/scene": "sectilis/core/shape", "app": "sectilis/core/card", "store": "sectilis/app"} {
		out, err := plant(t, bin, from, imports)
		assert.NoError(t, err, out)
	}
}

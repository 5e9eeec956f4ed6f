package namelist

import (
	"errors"
	"io"
	"strings"

	"github.com/emersion/go-vcard"

	"sectilis/core/document/card"
)

// people are business cards as rows, a heading first: the name as it is written out, its parts, and the
// first address of each kind. Columns in which nobody has anything are left out.
func people(s string) ([][]string, error) {
	heads := []string{"Name", "First name", "Last name", "Street", "Town", "Postcode", "Country", "Email", "Phone"}
	rows := [][]string{heads}
	for r := vcard.NewDecoder(strings.NewReader(s)); len(rows) <= maxRows; {
		c, err := r.Decode()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, card.Refuse("file", "These business cards cannot be read after the first %d. Export them once more, or save them as CSV.", len(rows)-1)
		}
		row := make([]string, len(heads))
		row[0] = c.PreferredValue(vcard.FieldFormattedName)
		if n := c.Name(); n != nil {
			row[1], row[2] = n.GivenName, n.FamilyName
			if row[0] == "" {
				row[0] = strings.TrimSpace(n.GivenName + " " + n.FamilyName)
			}
		}
		if a := c.Address(); a != nil {
			row[3], row[4], row[5], row[6] = a.StreetAddress, a.Locality, a.PostalCode, a.Country
		}
		row[7], row[8] = c.PreferredValue(vcard.FieldEmail), c.PreferredValue(vcard.FieldTelephone)
		rows = append(rows, row)
	}
	return used(rows), nil
}

// used are rows without the columns in which only the heading stands.
func used(rows [][]string) [][]string {
	out := make([][]string, len(rows))
	for k := range rows[0] {
		some := false
		for _, row := range rows[1:] {
			some = some || strings.TrimSpace(row[k]) != ""
		}
		for i := range rows {
			if some {
				out[i] = append(out[i], rows[i][k])
			}
		}
	}
	return out
}

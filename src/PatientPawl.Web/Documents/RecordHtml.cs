using System.Net;
using System.Text;
using PatientPawl.Core.Jobs;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Documents;

/// <summary>A record as one HTML file: pictures and style stand in it, and it may fetch nothing.</summary>
internal static class RecordHtml
{
    private const string Style =
        """
        body{font:15px/1.45 "DejaVu Sans",Verdana,sans-serif;color:#12211d;background:#fff;max-width:60em;margin:0 auto;padding:1.5em}
        h1{font-size:1.9em;margin:0}h2{font-size:1.3em;margin:1.2em 0 .3em;break-after:avoid}p{margin:.1em 0}
        header{display:flex;justify-content:space-between;gap:1em;border-bottom:2px solid;padding-bottom:.6em}
        header svg{width:96px;height:96px;flex:none}.soft{color:#485953}.warns{font-weight:bold}
        section.warns{border:2px solid #8c1f14;border-radius:4px;padding:.2em .8em .6em;margin-top:1em}
        dl{display:grid;grid-template-columns:9em 1fr;gap:.2em 1em}dt{color:#485953}dd{margin:0}
        table{border-collapse:collapse;width:100%;font-size:.93em}td,th{border-top:1px solid #b8c4be;padding:.25em .6em .25em 0;
        text-align:left;vertical-align:top;overflow-wrap:anywhere}th{font-weight:normal;color:#485953}tr{break-inside:avoid}
        tr.struck{color:#485953;text-decoration:line-through}td.doubt{font-weight:bold}
        .photos{display:grid;grid-template-columns:1fr 1fr;gap:1em}figure{margin:0;break-inside:avoid}img{max-width:100%;height:auto}
        footer{border-top:2px solid;margin-top:1.5em;padding-top:.5em;font-size:.85em;color:#485953}
        """;

    /// <summary>The document as a file of its own.</summary>
    /// <param name="document">The document.</param>
    /// <param name="photo">A photo's bytes by its hash; null where they are gone.</param>
    /// <param name="address">Where the job is found.</param>
    public static string Write(RecordDocument document, Func<string, byte[]?> photo, string address)
    {
        var html = new StringBuilder();
        html.Append($"""
            <!doctype html>
            <html lang="en-GB">
            <head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
            <meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'">
            <title>{Safe(document.Title)}</title>
            <style>{Style}</style></head>
            <body>
            <header><div><h1>{Safe(document.Title)}</h1><p>{Safe(document.Workshop)}</p>

            """);
        foreach (var note in document.Notes) html.Append($"<p class=\"{(note.Warns ? "warns" : "soft")}\">{Safe(note.Says)}</p>\n");
        html.Append($"<p class=\"soft\">{Safe(address)}</p></div>{AddressCode.Svg(address)}</header>\n<main>\n");
        foreach (var part in document.Parts) Part(html, part, photo);
        html.Append($"</main>\n<footer>{Safe(document.Foot)}</footer>\n</body></html>\n");
        return html.ToString();
    }

    private static void Part(StringBuilder html, DocumentPart part, Func<string, byte[]?> photo)
    {
        html.Append(part.Warns ? "<section class=\"warns\">" : "<section>");
        if (part.Heading.Length > 0) html.Append($"<h2>{Safe(part.Heading)}</h2>\n");
        if (part.Facts.Count > 0)
            html.Append($"<dl>{string.Concat(part.Facts.Select(f => $"<dt>{Safe(f.Name)}</dt><dd>{Safe(f.Says)}</dd>\n"))}</dl>");
        foreach (var line in part.Lines) html.Append($"<p>{Safe(line)}</p>\n");
        if (part.Table is { } table) Table(html, table);
        if (part.Photos.Count > 0) html.Append($"<div class=\"photos\">{string.Concat(part.Photos.Select(p => Figure(p, photo)))}</div>");
        html.Append("</section>\n");
    }

    private static void Table(StringBuilder html, DocumentTable table)
    {
        html.Append("<table>");
        if (table.HasHeading)
            html.Append($"<thead><tr>{string.Concat(table.Columns.Select(c => $"<th scope=\"col\">{Safe(c.Heading)}</th>"))}</tr></thead>");
        html.Append("<tbody>\n");
        foreach (var row in table.Rows)
        {
            html.Append(row.Struck ? "<tr class=\"struck\">" : "<tr>");
            for (var i = 0; i < row.Cells.Count; i++)
            {
                var doubt = row.StandsOut && i == row.Cells.Count - 1;
                html.Append(doubt ? "<td class=\"doubt\">" : "<td>").Append(Safe(row.Cells[i])).Append("</td>");
            }

            html.Append("</tr>\n");
        }

        html.Append("</tbody></table>\n");
    }

    private static string Figure(DocumentPhoto p, Func<string, byte[]?> photo) => photo(p.Sha256) is { } jpeg
        ? $"<figure><img src=\"data:image/jpeg;base64,{Convert.ToBase64String(jpeg)}\" alt=\"{Safe(p.Caption)}\" width=\"{p.WidthPx}\" " +
            $"height=\"{p.HeightPx}\"><figcaption><b>{Safe(p.Caption)}</b><br><span class=\"soft\">{Safe(p.Says)}</span></figcaption></figure>\n"
        : $"<p>{Safe(p.Gone)}</p>\n";

    private static string Safe(string text) => WebUtility.HtmlEncode(text);
}

using PatientPawl.Core.Jobs;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Documents;

/// <summary>A record as PDF.</summary>
internal static class RecordPdf
{
    private static readonly Lock Drawing = new();

    /// <summary>The document on sheets of paper.</summary>
    /// <param name="document">The document.</param>
    /// <param name="photo">A photo's bytes by its hash; null where they are gone.</param>
    /// <param name="address">Where the job is found.</param>
    /// <param name="size">The sheets' size.</param>
    public static byte[] Write(RecordDocument document, Func<string, byte[]?> photo, string address, PaperSize size)
    {
        // PDFsharp shares its typefaces between documents: one is drawn after the other.
        lock (Drawing) return Drawn(document, photo, address, size);
    }

    private static byte[] Drawn(RecordDocument document, Func<string, byte[]?> photo, string address, PaperSize size)
    {
        const double Square = 66;
        using var paper = new Paper(size, document.Title);
        using var code = AddressCode.Made(address);
        paper.Square(code.ModuleMatrix, Square);
        var beside = paper.Width - Square - 12;
        paper.Text(document.Title, 18, bold: true, width: beside);
        paper.Text(document.Workshop, 10, width: beside);
        foreach (var note in document.Notes) paper.Text(note.Says, 9, bold: note.Warns, width: beside, soft: !note.Warns);
        paper.Text(address, 8, width: beside, soft: true);
        paper.Ruled();
        foreach (var part in document.Parts)
        {
            if (part.Heading.Length > 0) paper.Heading(part.Heading);
            foreach (var fact in part.Facts) paper.Fact(fact.Name, fact.Says);
            foreach (var line in part.Lines) paper.Text(line, bold: part.Warns);
            if (part.Table is { } table) Rows(paper, table);
            foreach (var gone in part.Photos.Where(p => photo(p.Sha256) is null)) paper.Text(gone.Gone);
            paper.Pictures([.. part.Photos.SelectMany(p => photo(p.Sha256) is { } jpeg ? [(jpeg, p.Caption, p.Says)]
                : Array.Empty<(byte[], string, string)>())]);
        }

        paper.Ruled();
        paper.Text(document.Foot, 8, soft: true);
        return paper.Finish($"{document.Workshop}, {document.Title}");
    }

    private static void Rows(Paper paper, DocumentTable table)
    {
        int[] shares = [.. table.Columns.Select(c => c.Share)];
        void Heading() => paper.Row([.. table.Columns.Select(c => c.Heading)], shares, null, bold: true);
        if (table.HasHeading) Heading();
        foreach (var row in table.Rows)
            paper.Row(row.Cells, shares, table.HasHeading ? Heading : null, struck: row.Struck, lastBold: row.StandsOut);
    }
}

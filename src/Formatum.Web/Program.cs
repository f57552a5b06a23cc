using Formatum.Documents;
using Formatum.Imaging.Apart;
using Formatum.Output.Fonts;
using Formatum.Storage;
using Formatum.Web;
using Formatum.Web.Hosting;

const int Refused = 2;
try
{
    if (args is [PictureWorker.Verb, .. var rest])
    {
        PictureWorker.Run(rest);
        return 0;
    }
    if (args is [FontsApart.Verb, .. var font])
    {
        FontsApart.Run(font);
        return 0;
    }
    if (args is [PdfPagesApart.Verb, .. var pdf])
    {
        PdfPagesApart.Run(pdf);
        return 0;
    }
    if (args is [DocumentsApart.Verb, .. var document])
    {
        DocumentsApart.Run(document);
        return 0;
    }
    if (args is [CheckVerb.Name, .. var check]) return await CheckVerb.RunAsync(check);
    var chosen = CommandLine.Read(args);
    if (chosen.ContainsKey("help"))
    {
        Console.Write(CommandLine.Help);
        return 0;
    }
    var options = ServerOptions.From(chosen);
    if (chosen.TryGetValue("backup", out string? to))
        Console.WriteLine($"{Backup.Make(options.DataFolder, Path.GetFullPath(to))} files were copied to {to}; all others were there already.");
    else if (chosen.TryGetValue("restore", out string? from))
    {
        using var folder = DataFolder.Take(options.DataFolder, "a backup being put back");
        Console.WriteLine($"{Backup.PutBack(Path.GetFullPath(from), options.DataFolder)} files were put back into {options.DataFolder}.");
    }
    else await Server.RunAsync(options);
    return 0;
}
catch (Exception e) when (e is ArgumentException or StartRefused)
{
    Console.Error.WriteLine(e.Message);
    return Refused;
}

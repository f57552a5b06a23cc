using Formatum.Imaging.Apart;
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
    var chosen = CommandLine.Read(args);
    if (chosen.ContainsKey("help"))
    {
        Console.Write(CommandLine.Help);
        return 0;
    }
    await Server.RunAsync(ServerOptions.From(chosen));
    return 0;
}
catch (Exception e) when (e is ArgumentException or StartRefused)
{
    Console.Error.WriteLine(e.Message);
    return Refused;
}

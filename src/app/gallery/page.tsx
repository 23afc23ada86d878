import { GalleryPage } from "@/ui/gallery/GalleryPage";
import { titled } from "../language";

export const generateMetadata = titled((words) => words.gallery.title);

export default function Page() {
  return <GalleryPage />;
}

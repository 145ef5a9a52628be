import { expose } from 'comlink'
import { PhotoReader } from './photo-look'

expose(new PhotoReader())
